import { idleNumbers, problemsOf } from '@/core/analysis';
import { emergencyNumbersOf } from '@/core/numbers';
import { trace } from '@/core/routing';
import { may } from './access/rights';
import { draftPlan, listRevisions, livePlan, pendingEdits } from './draft';
import { pageActor } from './page';
import { forwardingAt } from './state/forwarding';

/** What somebody who comes in the morning wants to know. */
export async function todayData() {
  const actor = await pageActor();
  const [pending, revisions, draft, live] = [
    await pendingEdits(actor),
    await listRevisions(actor),
    await draftPlan(),
    await livePlan(),
  ];
  const x = live.exchange();
  const now = Date.now();
  const forwarding = await forwardingAt(new Date(now));
  const emergency = live.plan.sites.map((site) => {
    const phone = live.plan.extensions.find((e) => e.site === site.id);
    const number = emergencyNumbersOf(site.country)[0]!;
    const t = phone
      ? trace(x, { from: { type: 'extension', id: phone.id }, dial: number, enBloc: false, at: now })
      : null;
    return {
      site: site.name,
      number,
      ok: t?.outcome === 'routed',
      trunk: t?.trunk ? x.trunks.get(t.trunk)!.name : null,
      shown: t?.shownNumber ?? null,
      from: phone?.digits ?? null,
    };
  });
  return {
    me: actor.name,
    canEdit: may(actor, 'edit'),
    pending: pending.edits.map((e) => ({
      kind: e.kind,
      id: e.id,
      label: e.label,
      word: e.word,
      by: e.by.at(-1) ?? '',
      fields: e.fields.map((f) => f.title),
      isNew: e.before === null,
      isGone: e.after === null,
    })),
    live: revisions[0] ?? null,
    problems: problemsOf(draft.exchange()),
    emergency,
    forwarding: forwarding.flatMap((f) => {
      const e = x.extensions.get(f.extension) ?? draft.exchange().extensions.get(f.extension);
      return e ? [{ id: e.id, label: `${e.digits} ${e.name}`, when: f.when, to: f.to, since: f.since }] : [];
    }),
    counts: {
      people: draft.plan.people.length,
      extensions: draft.plan.extensions.length,
      numbers: draft.plan.numbers.length,
      free: idleNumbers(draft.exchange()).length,
    },
    ask: examples(draft.plan.extensions[0]?.digits ?? '2104'),
  };
}

function examples(digits: string): { from: string; dial: string; at: string }[] {
  return [
    { from: digits, dial: '112', at: 'now' },
    { from: 'outside:+46846500417', dial: '+44 1632 960100', at: 'fri 17:10' },
    { from: '2104', dial: '9 00 46 31 390 0610', at: 'now' },
    { from: '2160', dial: '9 01632 960150', at: 'now' },
  ];
}
