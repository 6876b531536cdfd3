import { JUST_RUNG } from '../destinations';
import { mailboxOf } from '../destinations/mailbox';
import type { Extension, RingGroup } from '../plan';
import {
  BUSY,
  NO_ANSWER,
  UNREACHABLE,
  contextOf,
  forwardingBy,
  ruleAt,
  type CameIn,
  type OwnReach,
  type Situation,
} from '../routing';
import type { Sheet } from './sheet';

/* Ways of a course that people set themselves: forwarding, reach plans of their own, calls that they send on. */

/** Phones of a person's own reach plan, and where the call goes when none of them takes it. */
function reached(sheet: Sheet, extension: Extension, own: OwnReach): void {
  for (const step of own.steps) {
    const to = step.extension ? sheet.place(step.extension, JUST_RUNG) : forwardedOut(sheet, extension, step.dial!);
    sheet.way(extension.id, to, step.extension ? 'rings' : 'rings outside', 'answered');
  }
  const box = mailboxOf(extension, sheet.exchange);
  const ends = box ? [sheet.place(box, 0)] : [NO_ANSWER, BUSY, UNREACHABLE].map((cause) => sheet.ending(cause));
  for (const end of ends) sheet.way(extension.id, end, 'no answer', 'ring');
}

/** Where a person's own forwarding and reach plan of the situation lead. */
export function wished(sheet: Sheet, extension: Extension, situation: Situation): void {
  for (const own of situation.reach ?? []) if (own.extension === extension.id) reached(sheet, extension, own);
  forwards(sheet, extension, situation);
  for (const t of situation.transfers ?? []) {
    if (t.by !== extension.id) continue;
    const direct = sheet.exchange.destinations.has(t.to);
    const rule = direct ? undefined : ruleAt(contextOf(sheet.exchange, extension, sheet.moment), t.to);
    const id = direct ? t.to : rule?.type === 'destination' ? rule.id : null;
    const to = id !== null ? sheet.place(id, 0) : sheet.add(`outside ${t.to}`, 'outside', t.to, rule?.type === 'rung');
    sheet.way(extension.id, to, 'transferred', 'caller');
    sheet.way(to, extension.id, 'recall', 'ring');
  }
}

/** Where a person's own forwarding leads: any of it, or only that of one occasion. */
export function forwards(sheet: Sheet, extension: Extension, situation: Situation, when?: string): void {
  for (const f of situation.forwarding ?? []) {
    if (f.extension !== extension.id || (when !== undefined && f.when !== when)) continue;
    const rule = ruleAt(contextOf(sheet.exchange, extension, sheet.moment), f.to);
    const to = rule?.type === 'destination' ? sheet.place(rule.id, 0) : forwardedOut(sheet, extension, f.to);
    sheet.way(extension.id, to, `forwarded, ${f.when}`, f.when === 'no answer' ? 'ring' : 'none');
  }
}

/** Where members of a group that heeds their own forwarding are rung outside. */
export function membersElsewhere(sheet: Sheet, group: RingGroup, situation: Situation): void {
  if (!group.forwards) return;
  for (const f of situation.forwarding ?? []) {
    const member = group.members.includes(f.extension) ? sheet.exchange.extensions.get(f.extension) : undefined;
    if (!member || ruleAt(contextOf(sheet.exchange, member, sheet.moment), f.to)?.type === 'destination') continue;
    sheet.way(group.id, forwardedOut(sheet, member, f.to), 'rings outside', 'answered');
  }
}

/** Digits of a forwarding that lead outside: an end of their own, or the reason why nobody leaves by them. */
function forwardedOut(sheet: Sheet, extension: Extension, digits: string): string {
  const inside: CameIn = { trunk: null, calling: null, phone: extension, site: extension.site };
  const ways = sheet.cameIn.length > 0 ? sheet.cameIn : [inside];
  const found = ways.map((cameIn) => forwardingBy(sheet.exchange, extension, digits, cameIn, sheet.moment!));
  for (const { lands, cause } of found) if (!lands) sheet.ending(cause!);
  return found.some((e) => e.lands)
    ? sheet.add(`outside ${digits}`, 'outside', digits, true)
    : sheet.ending(found[0]!.cause!);
}
