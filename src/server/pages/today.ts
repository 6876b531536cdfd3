import type { Actor } from '../access/rights';
import { may } from '../access/rights';
import { listRevisions } from '../draft';
import { unsound } from '../operations/health';
import { OUTSIDE_CALLER } from '@/core/analysis';
import { forwardingAt } from '../state/forwarding';
import { mutedAt } from '../state/muted';
import { askForPage, pageActor } from './reader';

/** Problems on the page as it comes; more are fetched when asked for. */
const PROBLEMS_AT_ONCE = 60;

/** What somebody who comes in the morning wants to know; what takes longer is streamed after it. */
export async function todayData() {
  const reader = await pageActor();
  const now = Date.now();
  const [{ askAs, number, ...known }, revisions] = await Promise.all([
    askForPage('today', { reader }),
    listRevisions(reader),
  ]);
  return {
    ...known,
    me: reader.name,
    account: reader.account,
    canEdit: may(reader, 'edit'),
    mayActNow: may(reader, 'actNow'),
    mayAsk: may(reader, 'ask'),
    live: revisions[0] ?? null,
    work: askForPage('work', { reader, now }),
    problems: problemsFor(reader, false),
    emergency: askForPage('emergency', { reader, now }),
    forwarding: forwardings(reader, now),
    unsound: may(reader, 'administer') ? unsound() : Promise.resolve([]),
    ask: examples(askAs, number),
  };
}

/** The first problems of the draft that are counted, or those that are left as they are. */
export const problemsFor = async (reader: Actor, muted: boolean) =>
  askForPage('problems', {
    reader,
    from: 0,
    most: PROBLEMS_AT_ONCE,
    type: '',
    muted,
    mutes: await mutedAt(new Date()),
  });

/** The page of problems. */
export async function problemsPage(muted: boolean) {
  const reader = await pageActor();
  return { muted, mayEdit: may(reader, 'edit'), found: problemsFor(reader, muted) };
}

async function forwardings(reader: Actor, now: number) {
  const found = await forwardingAt(new Date(now));
  const labels = await askForPage('extensionLabels', { reader, ids: found.map((f) => f.extension) });
  return found.flatMap((f) => {
    const label = labels[f.extension];
    return label === undefined ? [] : [{ id: f.extension, label, when: f.when, to: f.to, since: f.since }];
  });
}

/** Questions to begin with, of the reader's own plan. */
function examples(from: string | null, number: string | null): { from: string; dial: string; at: string }[] {
  return [
    ...(from ? [{ from, dial: '112', at: 'now' }] : []),
    ...(number ? [{ from: `outside:${OUTSIDE_CALLER}`, dial: number, at: 'fri 17:10' }] : []),
    ...(number ? [{ from: 'withheld', dial: number, at: 'sun 03:00' }] : []),
  ];
}
