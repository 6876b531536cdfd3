/* What a soak is given in place of fast-check: each property is tried so many times as often as its test asks for. */
const real = require('../../node_modules/fast-check/lib/cjs/fast-check.js');

const times = Number(process.env.POLYDROME_SOAK);
const assert = (property, params = {}) =>
  real.default.assert(property, { ...params, numRuns: (params.numRuns ?? 100) * times });
const fc = { ...real.default, assert };
module.exports = { ...real, __esModule: true, default: fc, assert };
