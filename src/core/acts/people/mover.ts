import { z } from 'zod';
import { emergencyNumbersOf, showNumber } from '../../numbers';
import {
  freeDigits,
  numberSpaceOf,
  type AnyObject,
  type Extension,
  type Mailbox,
  type ObjectKind,
  type Person,
  type Plan,
  type PlanNumber,
  type Site,
} from '../../plan';

/* Somebody moves to another site: digits, numbers and mailbox go along or are changed for those of the new place. */

export interface MoveWish {
  site: string;
  /** digits by extension; those not named stay as they are */
  digits: Readonly<Record<string, string>>;
  /** what becomes of the own numbers: they stay, are freed, or one of the new site takes their place */
  number: 'keep' | 'free' | { take: string };
}

const shownNumber = z.strictObject({ id: z.string(), shown: z.string() });

export const moveProposalSchema = z.strictObject({
  /** free digits of the new site's ranges that each extension is offered */
  digits: z.array(z.strictObject({ extension: z.string(), now: z.string(), free: z.array(z.string()) })),
  numbers: z.array(shownNumber),
  freeNumbers: z.array(shownNumber),
  /** what else is otherwise at the new site, in sentences */
  differs: z.array(z.string()),
});
export type MoveProposal = z.output<typeof moveProposalSchema>;

/** What somebody who moves is offered, and what will be otherwise there. */
export function proposeMove(plan: Plan, person: string, site: string): MoveProposal | null {
  const who = plan.people.find((p) => p.id === person);
  const [from, to] = [plan.sites.find((s) => s.id === who?.site), plan.sites.find((s) => s.id === site)];
  if (!who || !from || !to) return null;
  const extensions = plan.extensions.filter((e) => e.person === person);
  const free = freeDigits(plan, site, 6 * Math.max(1, extensions.length));
  const named = new Set([
    ...plan.inboundRoutes.flatMap((r) => r.numbers),
    ...plan.sites.flatMap((s) => s.mainNumber ?? []),
  ]);
  const shown = (n: PlanNumber) => ({ id: n.id, shown: showNumber(n.e164, to.country) });
  return {
    digits: extensions.map((e, i) => ({ extension: e.id, now: e.digits, free: free.slice(i * 6, i * 6 + 6) })),
    numbers: plan.numbers.filter((n) => extensions.some((e) => e.id === n.belongsTo)).map(shown),
    freeNumbers: plan.numbers
      .filter((n) => n.site === site && n.state === 'active' && !n.belongsTo && !named.has(n.id))
      .slice(0, 50)
      .map(shown),
    differs: differing(plan, from, to),
  };
}

function differing(plan: Plan, from: Site, to: Site): string[] {
  const out: string[] = [];
  const prefix = (s: Site) =>
    s.outsidePrefix ? `${s.outsidePrefix} before an outside number` : 'no prefix before an outside number';
  if (from.outsidePrefix !== to.outsidePrefix) out.push(`Dials ${prefix(to)}, was ${prefix(from)}.`);
  if (from.zone !== to.zone) out.push(`Times are read in ${to.zone}, were in ${from.zone}.`);
  const emergency = (s: Site) => emergencyNumbersOf(s.country).join(', ');
  if (emergency(from) !== emergency(to)) out.push(`Emergency numbers are ${emergency(to)}, were ${emergency(from)}.`);
  const trunks = (s: Site) =>
    s.emergencyTrunks.map((id) => plan.trunks.find((t) => t.id === id)?.name).join(', ') || 'no trunk';
  if (trunks(from) !== trunks(to)) out.push(`Emergency calls leave by ${trunks(to)}, left by ${trunks(from)}.`);
  const ladder = (s: Site) => plan.ladders.find((l) => l.id === s.ladder)?.name ?? 'no ladder';
  if (from.ladder !== to.ladder) out.push(`Outside calls follow “${ladder(to)}”, followed “${ladder(from)}”.`);
  if (from.language !== to.language)
    out.push(`Prompts are in ${to.language}, were in ${from.language}, unless the person has a language of their own.`);
  return out;
}

/** The objects that a move changes, or why it can't be. */
export function planMove(
  plan: Plan,
  person: string,
  wish: MoveWish,
):
  | { ok: true; changed: { kind: ObjectKind; before: AnyObject; after: AnyObject }[] }
  | { ok: false; path: string; sentence: string } {
  const who = plan.people.find((p) => p.id === person);
  const site = plan.sites.find((s) => s.id === wish.site);
  if (!who || !site) return { ok: false, path: 'site', sentence: 'There is no such site.' };
  const extensions = plan.extensions.filter((e) => e.person === person);
  const changed: { kind: ObjectKind; before: AnyObject; after: AnyObject }[] = [];
  const put = <T extends AnyObject>(kind: ObjectKind, before: T, after: T) => {
    if (JSON.stringify(before) !== JSON.stringify(after)) changed.push({ kind, before, after });
  };
  put<Person>('person', who, { ...who, site: site.id });
  for (const e of extensions) {
    const digits = wish.digits[e.id] ?? e.digits;
    const taken = plan.extensions.find(
      (x) => x.id !== e.id && x.digits === digits && numberSpaceOf(plan, x.site) === numberSpaceOf(plan, site.id),
    );
    if (taken) return { ok: false, path: `digits.${e.id}`, sentence: `${digits} is already ${taken.name}.` };
    put<Extension>('extension', e, { ...e, site: site.id, digits, emergencyCallback: null });
    const box = plan.mailboxes.find((m) => m.id === e.mailbox && m.owners.every((o) => o === person));
    if (box) put<Mailbox>('mailbox', box, { ...box, site: site.id });
  }
  const ids = new Set(extensions.map((e) => e.id));
  const first = extensions[0];
  if (wish.number !== 'keep')
    for (const n of plan.numbers.filter((x) => x.belongsTo !== null && ids.has(x.belongsTo)))
      put<PlanNumber>('number', n, { ...n, belongsTo: null });
  if (typeof wish.number === 'object') {
    const { take } = wish.number;
    const number = plan.numbers.find((n) => n.id === take);
    if (!number || number.belongsTo || !first)
      return { ok: false, path: 'number', sentence: 'This number is not free, or there is no extension to have it.' };
    put<PlanNumber>('number', number, { ...number, belongsTo: first.id });
  }
  return { ok: true, changed };
}
