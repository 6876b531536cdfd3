import { z } from 'zod';
import { emergencyNumbersOf } from '../numbers';
import { DIALLED_KINDS, labelOf, objectsOf, type AnyObject, type DialledKind, type Plan } from '../plan';
import { numberSpaceOf } from '../plan/faults';

/* The number space of a site: which digits something has, in a hundred blocks by the first two of them. */

const blockSchema = z.strictObject({
  /** the first two digits */
  digits: z.string(),
  /** how many things have digits that begin so, by kind, the most first */
  kinds: z.array(z.strictObject({ kind: z.string(), count: z.number() })),
  /** the share of the digits of the length that is usual here, 0 to 1 */
  full: z.number(),
  /** lies in a range that a site keeps for extensions */
  kept: z.boolean(),
  /** phones of the space dial outside, or for help, by digits that begin so */
  outside: z.string().nullable(),
});
export type NumberBlock = z.output<typeof blockSchema>;

const holder = z.strictObject({ digits: z.string(), kind: z.string(), id: z.string(), label: z.string() });
export type NumberHolder = z.output<typeof holder>;

export const numberSpaceSchema = z.strictObject({
  blocks: z.array(blockSchema),
  /** what has a single digit, or begins with a star or a hash */
  short: z.array(holder),
  /** digits that are the beginning of others: phones wait there for another one */
  begins: z.array(z.strictObject({ shorter: holder, longer: holder, more: z.number() })),
  /** ranges that sites keep for extensions, with how much of each is taken */
  ranges: z.array(
    z.strictObject({ site: z.string(), from: z.string(), to: z.string(), taken: z.number(), size: z.number() }),
  ),
});
export type NumberSpace = z.output<typeof numberSpaceSchema>;

export const numberBlockSchema = z.strictObject({
  taken: z.array(holder),
  /** how many are not in the list */
  more: z.number(),
  /** ranges of the usual length that nothing has, first and last digits */
  free: z.array(z.strictObject({ from: z.string(), to: z.string(), count: z.number() })),
});

interface Held extends NumberHolder {
  kind: DialledKind;
}

const spaces = new WeakMap<Plan, Map<string, Held[]>>();

/** Everything that has digits in the space of a site, by its digits; found once for a plan and space. */
function holdersIn(plan: Plan, site: string): readonly Held[] {
  const known = spaces.get(plan) ?? new Map<string, Held[]>();
  spaces.set(plan, known);
  const space = numberSpaceOf(plan, site);
  const found = known.get(space);
  if (found) return found;
  const held: Held[] = [];
  for (const kind of DIALLED_KINDS)
    for (const o of objectsOf(plan, kind) as (AnyObject & { site: string; digits?: string | null })[])
      if (typeof o.digits === 'string' && numberSpaceOf(plan, o.site) === space)
        held.push({ digits: o.digits, kind, id: o.id, label: labelOf(kind, o) });
  held.sort((a, b) => (a.digits < b.digits ? -1 : a.digits > b.digits ? 1 : 0));
  known.set(space, held);
  return held;
}

/** The length that most of some digits have; 4 where there are none. */
function usualLength(held: readonly { digits: string }[]): number {
  const counts = new Map<number, number>();
  for (const { digits } of held) counts.set(digits.length, (counts.get(digits.length) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 4;
}

const MOST_BEGINS = 20;

/** The number space of a site in blocks; the site must exist. */
export function numberSpace(plan: Plan, siteId: string): NumberSpace {
  const space = numberSpaceOf(plan, siteId);
  const sites = plan.sites.filter((s) => numberSpaceOf(plan, s.id) === space);
  const held = holdersIn(plan, siteId);
  const usual = usualLength(held);
  const blocks = new Map<string, Held[]>();
  const short: NumberHolder[] = [];
  for (const h of held) {
    if (!/^[0-9]{2}/.test(h.digits)) short.push(h);
    else {
      const block = h.digits.slice(0, 2);
      blocks.set(block, [...(blocks.get(block) ?? []), h]);
    }
  }
  const begun: [string, string][] = sites.flatMap((s) => [
    ...(s.outsidePrefix ? [[s.outsidePrefix, `outside from ${s.name}`] as [string, string]] : []),
    ...emergencyNumbersOf(s.country).map((n): [string, string] => [n, `emergency ${n}`]),
  ]);
  return {
    blocks: Array.from({ length: 100 }, (_, i) => {
      const digits = String(i).padStart(2, '0');
      const here = blocks.get(digits) ?? [];
      const counts = new Map<string, number>();
      for (const { kind } of here) counts.set(kind, (counts.get(kind) ?? 0) + 1);
      const length = Math.max(2, here.length > 0 ? usualLength(here) : usual);
      const ofLength = here.filter((h) => h.digits.length === length).length;
      const outside = begun.find(([d]) => digits.startsWith(d) || d.startsWith(digits));
      return {
        digits,
        kinds: [...counts].map(([kind, count]) => ({ kind, count })).sort((a, b) => b.count - a.count),
        full: Math.min(1, ofLength / 10 ** (length - 2)),
        kept: sites.some((s) => s.ranges.some((r) => r.from.slice(0, 2) <= digits && digits <= r.to.slice(0, 2))),
        outside: outside?.[1] ?? null,
      };
    }),
    short,
    begins: beginnings(held),
    ranges: sites.flatMap((s) =>
      s.ranges.map(({ from, to }) => ({
        site: s.name,
        from,
        to,
        taken: held.filter((h) => h.digits.length === from.length && h.digits >= from && h.digits <= to).length,
        size: Number(to) - Number(from) + 1,
      })),
    ),
  };
}

/** Digits that are the beginning of others: in their order what begins with them comes right after them. */
function beginnings(held: readonly Held[]): NumberSpace['begins'] {
  const out: NumberSpace['begins'] = [];
  held.forEach((shorter, i) => {
    let j = i + 1;
    while (j < held.length && held[j]!.digits.startsWith(shorter.digits)) j++;
    if (j > i + 1 && out.length < MOST_BEGINS) out.push({ shorter, longer: held[i + 1]!, more: j - i - 2 });
  });
  return out;
}

const MOST_TAKEN = 100;

/** What has digits in a block, and which of the usual length are free. `block` is one or two digits; the site must exist. */
export function numberBlock(plan: Plan, siteId: string, block: string): z.output<typeof numberBlockSchema> {
  const here = holdersIn(plan, siteId).filter((h) => h.digits.startsWith(block));
  const length = Math.max(block.length + 1, usualLength(here.length > 0 ? here : holdersIn(plan, siteId)));
  const taken = new Set(here.map((h) => h.digits));
  const free: { from: string; to: string; count: number }[] = [];
  const size = 10 ** Math.min(4, length - block.length);
  for (let n = 0; n < size; n++) {
    const digits = block + String(n).padStart(length - block.length, '0');
    if (taken.has(digits)) continue;
    const last = free.at(-1);
    if (last && Number(last.to) + 1 === Number(digits)) {
      last.to = digits;
      last.count++;
    } else free.push({ from: digits, to: digits, count: 1 });
  }
  return { taken: here.slice(0, MOST_TAKEN), more: Math.max(0, here.length - MOST_TAKEN), free };
}
