import fc from 'fast-check';

/* Property tests draw the same examples every time, so that a run can be trusted and repeated. To search on: POLYDROME_TEST_SEED=$RANDOM npm test. */
fc.configureGlobal({ seed: Number(process.env.POLYDROME_TEST_SEED ?? 20261123) });
