import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import { planAssignment, readNumberList } from '@/core/acts/inventory';
import { showNumber } from '@/core/numbers';
import { number as numberSchema, type PlanNumber } from '@/core/plan';
import { Refused, demand, type Actor } from '../access/rights';
import { EditRefused, applyEdits, draftPlan, type Edit, type EditResult } from '../draft';

/* Adding numbers by the list, and giving many of them to extensions at once. */

const shape = numberSchema.shape;

export const numberListSchema = z.strictObject({
  text: z.string().max(400_000),
  site: z.string().max(36),
  trunk: shape.trunk,
  state: shape.state,
  activeFrom: shape.activeFrom,
});
type NumberList = z.output<typeof numberListSchema>;

/** What a pasted list says, entry by entry: numbers, which of them are known already, and what is wrong. */
export async function readList(actor: Actor, input: NumberList) {
  demand(actor, 'look');
  const { plan } = await draftPlan();
  const site = plan.sites.find((s) => s.id === input.site);
  if (!site)
    throw new Refused(422, 'no-such-object', 'Choose the site first: its country says how numbers are read.', 'site');
  const known = new Set(plan.numbers.map((n) => n.e164));
  const entries = readNumberList(input.text, {
    country: site.country,
    area: site.area,
    additions: plan.numberAdditions,
  });
  return {
    entries: entries.map((e) => ({
      line: e.line,
      text: e.text,
      wrong: e.wrong,
      count: e.numbers.length,
      first: e.numbers[0] ? showNumber(e.numbers[0], site.country) : null,
      last: e.numbers.length > 1 ? showNumber(e.numbers.at(-1)!, site.country) : null,
      known: e.numbers.filter((n) => known.has(n)).length,
    })),
    fresh: entries.flatMap((e) => e.numbers).filter((n) => !known.has(n)),
  };
}

/** Adds every number of a list that is not known already; refused whole when an entry is wrong. */
export async function addNumbers(
  actor: Actor,
  input: NumberList,
): Promise<EditResult & { added: number; known: number }> {
  demand(actor, 'edit');
  const { entries, fresh } = await readList(actor, input);
  const wrong = entries.filter((e) => e.wrong);
  if (wrong.length > 0)
    throw new EditRefused(
      422,
      'invalid',
      wrong
        .slice(0, 100)
        .map((e) => ({ code: 'invalid', path: `text.${e.line}`, sentence: `Line ${e.line}: ${e.wrong}` })),
    );
  if (fresh.length === 0) throw new Refused(409, 'nothing-to-do', 'Every one of them is known already.', 'text');
  const { site, trunk, state, activeFrom } = input;
  const edits = fresh.map((e164): Edit => {
    const id = uuid();
    return { kind: 'number', id, rowVersion: null, value: { id, e164, site, trunk, state, activeFrom } };
  });
  const result = await applyEdits(actor, edits);
  return { ...result, added: fresh.length, known: entries.reduce((n, e) => n + e.known, 0) };
}

export const assignSchema = z.strictObject({
  numbers: z.array(z.string().max(36)).min(1, 'names no number').max(20_000),
  /** extensions by id; null: every extension of the numbers’ sites that has none */
  extensions: z.array(z.string().max(36)).max(20_000).nullable().default(null),
  how: z.enum(['order', 'last digits']),
});
type Assign = z.output<typeof assignSchema>;

async function assigned(input: Assign) {
  const draft = await draftPlan();
  const { plan } = draft;
  const wanted = new Set(input.numbers);
  const numbers = plan.numbers.filter((n) => wanted.has(n.id));
  const sites = new Set(numbers.map((n) => n.site));
  const owned = new Set(plan.numbers.map((n) => n.belongsTo));
  const chosen = input.extensions && new Set(input.extensions);
  const extensions = plan.extensions.filter((e) =>
    chosen ? chosen.has(e.id) : sites.has(e.site) && e.kind === 'person' && !owned.has(e.id),
  );
  return { draft, ...planAssignment(plan, numbers, extensions, input.how) };
}

/** Which number would go to which extension; nothing is written. */
export async function previewAssign(actor: Actor, input: Assign) {
  demand(actor, 'look');
  const { draft, pairs, left } = await assigned(input);
  const country = (n: PlanNumber) => draft.plan.sites.find((s) => s.id === n.site)!.country;
  return {
    pairs: pairs.map((p) => ({
      number: showNumber(p.number.e164, country(p.number)),
      extension: `${p.extension.digits} ${p.extension.name}`,
    })),
    left,
  };
}

/** Gives the numbers as the preview says. */
export async function assign(actor: Actor, input: Assign): Promise<EditResult & { assigned: number }> {
  demand(actor, 'edit');
  demand(actor, 'bulk');
  const { draft, pairs } = await assigned(input);
  if (pairs.length === 0) throw new Refused(409, 'nothing-to-do', 'No number finds an extension this way.');
  const result = await applyEdits(
    actor,
    pairs.map(({ number, extension }): Edit => ({
      kind: 'number',
      id: number.id,
      rowVersion: draft.rowVersions.get(number.id) ?? null,
      value: { ...number, belongsTo: extension.id },
    })),
  );
  return { ...result, assigned: pairs.length };
}
