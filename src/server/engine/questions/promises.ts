import { promiseWords } from '@/core/proof';
import { sightIn, type By, type Given } from '../ground/question';
import { objectPage } from './objects';
import { shortLedger } from './short-ledger';

/* Promises: the list of them, and one. Whether they hold is asked beside it. */

export function promisesLedger(given: Given, { reader }: By) {
  const { plan } = given.draft;
  return sightIn(given.draft, reader).cut(
    shortLedger(
      given,
      reader,
      'promise',
      (p) => ({ name: p.name, says: promiseWords(plan, p), firm: p.firm ? 'firm' : '' }),
      ['name', 'from', 'must'],
      { from: 'phones', must: 'never reaches' },
    ),
  );
}

/** One promise, with what it says. */
export function promisePage(given: Given, { reader, id }: By & { id: string }) {
  const data = objectPage(given, { kind: 'promise', id, reader });
  const { plan } = given.draft;
  const promise = plan.promises.find((p) => p.id === id);
  if (!data || !promise) return null;
  return { data, says: sightIn(given.draft, reader).cut(promiseWords(plan, promise)) };
}
