import type { ScriptReading } from '@/contract/scripts';
import { cplOfRoute, timesOfLeads } from '@/core/acts/routes';
import { readCpl, type CplLead } from '@/core/formats';
import { parseWeek, weekInWords } from '@/core/hours';
import { DESTINATION_KINDS, labelOf, type AnyObject } from '@/core/plan';
import { readText } from '@/core/numbers';
import { outcomeAt, type Situation } from '@/core/routing';
import { Refused } from '../../access/rights';
import type { Sight } from '../../access/sight';
import { sightIn, type By, type Given } from '../ground/question';

/* Inbound routes as CPL scripts (RFC 3880). */

const DAY_MS = 86_400_000;
const AHEAD_DAYS = 740;

const seen = (sight: Sight, id: string) => {
  const route = sight.list('inboundRoute').find((r) => r.id === id);
  if (!route) throw new Refused(404, 'no-such-object', 'There is no such inbound route.');
  return route;
};

/** A route of the draft as a script, and what could not be carried. */
export function routeScript(
  { draft }: Given,
  { reader, id, now, situation }: By & { id: string; now: number; situation: Situation },
) {
  const sight = sightIn(draft, reader);
  seen(sight, id);
  const { text, notCarried } = cplOfRoute(draft.exchange(), id, { now, situation });
  return sight.cut({ text, notCarried });
}

type Led = { leadsTo: string | null; label: string };

/** What a script would make of a route of the draft; 422 when it is none. */
export function readScript(
  { draft }: Given,
  { reader, id, text, now }: By & { id: string; text: string; now: number },
): ScriptReading {
  const sight = sightIn(draft, reader);
  const route = seen(sight, id);
  const x = draft.exchange();
  const number = x.numbers.get(route.numbers[0] ?? '');
  const site = (number && x.sites.get(number.site)) ?? draft.plan.sites[0];
  const zone = site?.zone ?? 'UTC';
  const from = Math.floor(now / DAY_MS) * DAY_MS;
  const read = readCpl(text, zone, { from, to: from + AHEAD_DAYS * DAY_MS });
  if (!read.ok) throw new Refused(422, 'bad-script', read.sentence, 'file');
  const notCarried = [...read.notCarried];
  const places = new Map<string, { id: string; label: string }>();
  for (const kind of DESTINATION_KINDS)
    for (const o of sight.list(kind) as AnyObject[]) {
      const place = { id: o.id, label: labelOf(kind, o) };
      places.set(o.id, place);
      if ('digits' in o && o.digits) places.set(o.digits, place);
    }
  const resolve = (lead: CplLead): Led | null => {
    if (lead.type === 'reject') return { leadsTo: null, label: 'turned away' };
    if (lead.type === 'nothing') return null;
    if (lead.type === 'user') {
      const place = places.get(lead.user);
      if (place) return { leadsTo: place.id, label: place.label };
      notCarried.push(`${lead.user} is nothing here; make it first, or lead there by hand.`);
      return null;
    }
    const e164 = site
      ? readText(lead.number, { country: site.country, area: site.area, additions: draft.plan.numberAdditions }).e164
      : null;
    const ours = e164 ? x.numberByE164.get(e164) : undefined;
    const outside = sight.list('outsideNumber').find((o) => e164 !== null && outcomeAt(x, o.id, now, {}).e164 === e164);
    const place = ours?.belongsTo ? places.get(ours.belongsTo) : outside && places.get(outside.id);
    if (place) return { leadsTo: place.id, label: place.label };
    notCarried.push(
      `The number ${lead.number} is no place here; make an outside number for it and lead there by hand.`,
    );
    return null;
  };
  const own = read.zone ?? zone;
  const { timed, otherwise, left } = timesOfLeads(read.stretches, own);
  if (left > 0) notCarried.push(`${left} days with times of their own, for which hours have no room.`);
  const rules = timed.flatMap((t) => {
    const led = resolve(t.lead);
    if (led === null) return [];
    if (led.leadsTo === null) {
      notCarried.push('Callers turned away at some times: lead them to a tone by hand.');
      return [];
    }
    const week = parseWeek(t.weekly);
    const dates = t.exceptions.length === 1 ? 'one date' : `${t.exceptions.length} dates`;
    const said = `${week.ok ? weekInWords(week.week) : t.weekly}${t.exceptions.length > 0 ? `; other times on ${dates}` : ''}`;
    return [{ ...led, weekly: t.weekly, exceptions: t.exceptions, said }];
  });
  return { zone: own, rules, otherwise: otherwise && resolve(otherwise), notCarried: [...new Set(notCarried)] };
}
