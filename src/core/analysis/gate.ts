import { emergencyNumbersOf } from '../numbers';
import { trace, type Exchange } from '../routing';
import { at, type Problem } from './problem';

/** What stands between a draft and going live. */
export interface Gate {
  /** errors about emergency calls that going live would bring: nothing lets them through */
  emergency: Problem[];
  /** other errors that going live would bring: an owner may let them through, with a reason */
  errors: Problem[];
  /** errors that are live already: going live makes them neither better nor worse */
  standing: Problem[];
}

/** Sites of which a phone does not reach an emergency service, found by dialling each of its numbers (ENGINE E7). */
export function emergencyCallsLost(exchange: Exchange, now: number): Problem[] {
  const phones = new Map<string, string>();
  for (const e of exchange.plan.extensions) if (e.kind !== 'virtual' && !phones.has(e.site)) phones.set(e.site, e.id);
  return exchange.plan.sites.flatMap((site) => {
    const phone = phones.get(site.id);
    if (!phone) return [];
    return emergencyNumbersOf(site.country).flatMap((number): Problem[] => {
      const from = { type: 'extension', id: phone } as const;
      const t = trace(exchange, { from, dial: number, enBloc: false, at: now });
      if (t.outcome === 'routed') return [];
      const why = t.steps.at(-1)?.sentence ?? t.outcome;
      return [
        {
          type: 'emergency-not-out',
          severity: 'error',
          object: at('site', site),
          sentence: `${number} dialled at ${site.name} does not get out: ${why}`,
          mend: 'Name a trunk of the same country in its emergency list, and see that it is switched on.',
        },
      ];
    });
  });
}

/** What a problem is known by: the same one in two plans has the same key. */
export const problemKey = (p: Problem) => `${p.type} ${p.object.kind} ${p.object.id} ${p.sentence}`;

/** The errors of a draft, as they concern going live from what is live now. */
export function gateOf(draft: readonly Problem[], live: readonly Problem[]): Gate {
  const known = new Set(live.map(problemKey));
  const errors = draft.filter((p) => p.severity === 'error');
  const fresh = errors.filter((p) => !known.has(problemKey(p)));
  const isEmergency = (p: Problem) => p.type.includes('emergency');
  return {
    emergency: fresh.filter(isEmergency),
    errors: fresh.filter((p) => !isEmergency(p)),
    standing: errors.filter((p) => known.has(problemKey(p))),
  };
}
