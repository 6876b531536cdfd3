import Sequencer from '@jest/test-sequencer';

/** Test files by their path, so that every machine runs them in the same order; POLYDROME_TEST_ORDER=reverse shows what leans on it. */
export default class ByPath extends Sequencer {
  sort(tests) {
    const way = process.env.POLYDROME_TEST_ORDER === 'reverse' ? -1 : 1;
    return [...tests].sort((a, b) => way * (a.path < b.path ? -1 : 1));
  }
}
