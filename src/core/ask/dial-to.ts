import { readText, type CallKind } from '../numbers';
import type { Extension } from '../plan';
import { ruleAt, trace, contextOf, type Exchange, type Trace } from '../routing';

/** What somebody means who writes where their calls should go, as their own phone would dial it. */
export type DialledTo =
  | { type: 'extension'; id: string; label: string }
  | {
      type: 'outside';
      /** what the phone dials */
      dial: string;
      e164: string;
      kind: CallKind;
      /** why a call there would be turned away today; null: it goes out */
      barred: string | null;
    }
  | { type: 'refused'; sentence: string };

/** What stands before an outside number somewhere: nothing, or one digit or two. */
const ACCESS = ['', '0', '9', '8', '1', '2', '3', '4', '5', '6', '7', '00', '*9', '#'];

/**
 * Reads an extension, what the phone dials, or a number as people write it (`+46 70 …`, `070-…`), and finds how the phone
 * reaches it. Emergency numbers are refused: nothing leads there by itself (ENGINE E4).
 */
export function dialTo(exchange: Exchange, owner: Extension, text: string, at: number): DialledTo {
  const site = exchange.sites.get(owner.site)!;
  const plain = text.replace(/[^0-9+*#]/g, '');
  const refused = (sentence: string): DialledTo => ({ type: 'refused', sentence });
  if (plain === '') return refused('Write an extension or a telephone number, such as 2104 or +46 70 174 06 05.');
  const asDialled = (dial: string): Trace =>
    trace(exchange, { from: { type: 'extension', id: owner.id }, dial, enBloc: true, at }, {});
  const context = contextOf(exchange, owner, { at, situation: {} }, owner.site);
  const rule = /^[0-9*#]{1,32}$/.test(plain) ? ruleAt(context, plain) : undefined;
  if (rule?.type === 'emergency') return refused(`${plain} is an emergency number; nothing leads there by itself.`);
  const own = rule?.type === 'destination' ? exchange.extensions.get(rule.id) : undefined;
  if (own) return { type: 'extension', id: own.id, label: `${own.digits} ${own.name}` };
  if (rule?.type === 'destination' || rule?.type === 'service')
    return refused(`${plain} is no phone here; give an extension or an outside number.`);
  const outside = (dial: string, t: Trace): DialledTo => ({
    type: 'outside',
    dial,
    e164: t.e164!,
    kind: t.kind!,
    barred: t.outcome === 'routed' ? null : (t.steps.at(-1)?.sentence ?? 'it finds no way out'),
  });
  const read = readText(text, exchange.places.get(site.id)!);
  // What is written as a number is that number; else it is what the phone dials.
  if (read.valid && read.e164) {
    const national = text.trim().startsWith('+') ? [] : [plain];
    for (const form of [...national, ...formsOf(read.e164, read.significant)])
      for (const access of ACCESS) {
        const dial = access + form;
        if (dial.length > 32) continue;
        if (ruleAt(context, dial)?.type !== 'rung') continue;
        const t = asDialled(dial);
        if (t.e164 === read.e164 && t.kind) return outside(dial, t);
      }
  }
  if (rule?.type === 'rung') {
    const t = asDialled(plain);
    if (t.e164 && t.kind) return outside(plain, t);
  }
  return refused(
    read.valid
      ? `Nothing at ${site.name} leads out to ${text.trim()}.`
      : (read.why ?? `${text.trim()} is no extension and no telephone number.`),
  );
}

/** A number as it may be dialled: within its country, or from abroad. */
const formsOf = (e164: string, significant: string): string[] => [
  `0${significant}`,
  significant,
  `00${e164.slice(1)}`,
  `011${e164.slice(1)}`,
  e164.slice(1),
];
