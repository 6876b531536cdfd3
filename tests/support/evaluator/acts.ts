import type { Plan } from '@/core/plan';
import { PHONE_STATES, holding, type Act } from '@/core/proof/acts';
import type { Call, Situation } from '@/core/routing';
import { evaluate } from './evaluate';
import { OUTSIDE, type Chance } from './random';

const LETTERS = ['abc', 'def', 'ghi', 'jkl', 'mno', 'pqrs', 'tuv', 'wxyz'];

/** The keys of a name (ITU-T E.161), of names in plain letters. */
const spelt = (name: string): string =>
  /^[a-z ]+$/i.test(name)
    ? [...name.toLowerCase().replaceAll(' ', '')].map((c) => 2 + LETTERS.findIndex((l) => l.includes(c))).join('')
    : '';

/** What callers may press at a place that takes more than single keys, or lets them leave. */
function rowsAt(plan: Plan, place: { kind: string; id: string | null }): string[] {
  const digits = plan.extensions.map((e) => e.digits);
  const names = plan.people
    .map((p) => spelt(p.name))
    .filter((keys) => keys.length > 2)
    .flatMap((keys) => [keys, keys.slice(0, 3)].flatMap((k) => [k, `${k}1`, `${k}2`, `${k}#1`, `${k}#2`]));
  const asking = plan.attendantKeys.filter((k) => k.attendant === place.id && k.does.startsWith('ask'));
  switch (place.kind) {
    case 'attendant':
      return [
        ...digits,
        ...names,
        ...(plan.attendants.some((a) => a.id === place.id && a.outsideDialling) ? OUTSIDE : []),
        ...asking.flatMap((k) => [...digits, ...names].flatMap((keys) => [`${k.key}${keys}`, `${k.key}#${keys}`])),
      ];
    case 'directory':
      return names;
    case 'mailbox':
    case 'queue':
      return [...plan.mailboxes, ...plan.queues].flatMap((o) => (o.id === place.id && o.exitKey ? [o.exitKey] : []));
    default:
      return [];
  }
}

/** Up to four acts, each at where a call comes to after those before it, by what the evaluator says. */
export function actsOn(chance: Chance, plan: Plan, call: Call, situation: Situation = {}): Act[] {
  const acts: Act[] = [];
  let pressed = 0;
  for (let n = 1 + chance.below(4); n > 0; n--) {
    const { lands, secondsWaited, trunk, digitsSent } = evaluate(plan, call, holding(situation, acts));
    const rows = lands ? rowsAt(plan, lands) : [];
    if (lands?.kind === 'attendant' || rows.length > 0) {
      const single = lands!.kind === 'attendant' && chance.is(0.5);
      const keys = chance.one(single || rows.length === 0 ? [...'0123456789*#'] : rows);
      const atSeconds = Math.max(pressed, secondsWaited) + 1;
      acts.push({ type: 'keys', keys, atSeconds });
      pressed = atSeconds + keys.length / 10;
    } else if (lands?.kind === 'extension') acts.push({ type: chance.one(PHONE_STATES), ids: [lands.id!] });
    else if (digitsSent !== null && trunk) acts.push({ type: 'trunk down', ids: [trunk] });
    else break;
  }
  return acts;
}
