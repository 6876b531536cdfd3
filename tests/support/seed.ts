import fc from 'fast-check';

/* Property tests draw the same examples every time, so that a run can be trusted and repeated. To search on: POLYDROME_TEST_SEED=$RANDOM npm test. */
fc.configureGlobal({ seed: Number(process.env.POLYDROME_TEST_SEED ?? 20261123) });

/* A soak tries so many times as many examples as a test asks for. */
const times = Number(process.env.POLYDROME_SOAK ?? 1);
if (times > 1) {
  const { assert } = fc;
  const longer = (property: Parameters<typeof assert>[0], params: Parameters<typeof assert>[1] = {}) =>
    assert(property, { ...params, numRuns: (params.numRuns ?? 100) * times });
  Object.assign(fc, { assert: longer });
}
