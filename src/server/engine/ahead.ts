import { problemsOf } from '@/core/analysis';
import type { Span } from '@/core/cells';
import { askAhead, checkPromise } from '@/core/proof';
import type { Exchange } from '@/core/routing';

/**
 * What is asked after every edit, asked ahead for a few: what it changes, whether the promises hold, and the problems. A step for
 * each, to be taken when there is nothing else to do.
 */
export function* editsAhead(live: Exchange, span: Span): Generator<void> {
  problemsOf(live);
  yield;
  for (const { willBe } of askAhead(live, span)) {
    yield;
    for (const promise of willBe.plan.promises) {
      checkPromise({ exchange: willBe, situation: {}, span }, promise);
      yield;
    }
    problemsOf(willBe);
    yield;
  }
}
