import { idleNumbers, problemsOf, type Problem } from '@/core/analysis';
import { emergencyNumbersOf } from '@/core/numbers';
import { trace } from '@/core/routing';
import { maySee, whereIs } from '../../access/areas';
import { may } from '../../access/rights';
import { actsSince, differing, pendingActs } from '../ground/pending';
import { keptFor, sightIn, type By, type Given } from '../ground/question';

const MOST_ACTS = 8;

/** What waits: the newest acts that are not live yet, and counts. */
export async function today({ draft, live }: Given, { reader }: By) {
  const sight = sightIn(draft, reader);
  const found = differing(live.plan, draft.plan).filter((d) => sight.sees(d.kind, (d.after ?? d.before)!));
  const acts = found.length > 0 ? pendingActs(found, await actsSince(live, draft), sight) : [];
  const first = sight.list('extension').find((e) => may(reader, 'ask', whereIs(draft.plan, 'extension', e)));
  return {
    edits: acts.length,
    pending: acts.slice(0, MOST_ACTS).map((a) => {
      const [first, ...others] = a.differences;
      return {
        id: a.id,
        name: a.name,
        by: a.by,
        at: a.at,
        // An act about one thing leads to it.
        object: first!.after && others.length === 0 ? { kind: first!.kind, id: first!.id } : null,
      };
    }),
    counts: {
      people: sight.list('person').length,
      extensions: sight.list('extension').length,
      numbers: sight.list('number').length,
      free: keptFor(draft.plan, 'idle', null, () => idleNumbers(draft.exchange())).filter((n) =>
        sight.sees('number', n),
      ).length,
    },
    askAs: first?.digits ?? null,
    number: sight.list('number').find((n) => n.state === 'active')?.e164 ?? null,
  };
}

const DAY = 86_400_000;

const GRAVEST_FIRST = ['error', 'doubt', 'note'] as const;

/** A part of what is wrong or doubtful in the draft, as far as its reader may look at it, the gravest first; and how much there is. */
export function problems(
  { draft, index }: Given,
  { reader, from, most }: By & { from: number; most: number },
): { draftVersion: number; count: number; problems: Problem[] } {
  const sight = sightIn(draft, reader);
  const today = Math.floor(Date.now() / DAY);
  const all = keptFor(draft.plan, 'problems', today, () =>
    problemsOf(draft.exchange(), today * DAY).sort(
      (a, b) => GRAVEST_FIRST.indexOf(a.severity) - GRAVEST_FIRST.indexOf(b.severity),
    ),
  );
  const mine = sight.all
    ? all
    : all.filter((p) => {
        const object = index().object(p.object.kind, p.object.id);
        return object !== null && sight.sees(p.object.kind, object);
      });
  return { draftVersion: draft.version, count: mine.length, problems: sight.cut(mine.slice(from, from + most)) };
}

/** Whether an emergency call of each site that the reader may see gets out as things are live, by which trunk, shown as what. */
export function emergency({ live }: Given, { reader, now }: By & { now: number }) {
  const x = live.exchange();
  const sight = sightIn(live, reader);
  const phones = keptFor(live.plan, 'first phones', null, () => {
    const out = new Map<string, string>();
    for (const e of live.plan.extensions) if (!out.has(e.site) && e.kind !== 'virtual') out.set(e.site, e.id);
    return out;
  });
  return sight.cut(
    sight.list('site').map((site) => {
      const phone = phones.get(site.id);
      const number = emergencyNumbersOf(site.country)[0]!;
      const t = phone
        ? trace(x, { from: { type: 'extension', id: phone }, dial: number, enBloc: false, at: now })
        : null;
      return {
        site: site.name,
        number,
        ok: t?.outcome === 'routed',
        trunk: t?.trunk ? x.trunks.get(t.trunk)!.name : null,
        shown: t?.shownNumber ?? null,
        from: phone ? x.extensions.get(phone)!.digits : null,
      };
    }),
  );
}

/** Labels of extensions that have something set, as far as the reader may see them. */
export function extensionLabels({ draft, live }: Given, { ids, reader }: By & { ids: readonly string[] }) {
  return Object.fromEntries(
    ids.flatMap((id) => {
      for (const held of [live, draft]) {
        const e = held.exchange().extensions.get(id);
        if (e && maySee(reader, held.plan, 'extension', e)) return [[id, `${e.digits} ${e.name}`]];
      }
      return [];
    }),
  ) as Record<string, string>;
}
