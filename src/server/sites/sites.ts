import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import { readNumberList } from '@/core/acts/inventory';
import { proposeSite, siteMoves } from '@/core/acts/sites';
import { COUNTRY_FACTS } from '@/core/numbers';
import { site as siteSchema, type Site } from '@/core/plan';
import { demand, type Actor } from '../access/rights';
import { EditRefused, applyEdits, draftPlan, livePlan, type Edit, type EditResult } from '../draft';

const shape = siteSchema.shape;

/** A new site with what belongs to it from the first day. */
export const newSiteSchema = z.strictObject({
  name: shape.name,
  country: shape.country,
  zone: shape.zone,
  language: shape.language,
  address: shape.address,
  area: shape.area,
  outsidePrefix: shape.outsidePrefix,
  siteCode: shape.siteCode,
  ranges: shape.ranges,
  ladder: shape.ladder,
  emergencyTrunks: shape.emergencyTrunks,
  /** numbers and ranges as pasted; the first becomes the main number and the emergency callback */
  numbers: z.string().max(100_000).default(''),
  trunk: z.string().max(36).nullable().default(null),
});

/** Adds a site with its numbers as one edit. */
export async function addSite(
  actor: Actor,
  input: z.output<typeof newSiteSchema>,
): Promise<EditResult & { id: string }> {
  demand(actor, 'edit');
  const { numbers: text, trunk, ...fields } = input;
  const { plan } = await draftPlan();
  const entries = readNumberList(text, { country: input.country, area: input.area, additions: plan.numberAdditions });
  const wrong = entries.find((e) => e.wrong);
  if (wrong)
    throw new EditRefused(422, 'invalid', [
      { code: 'invalid', path: 'numbers', sentence: `Line ${wrong.line}: ${wrong.wrong}` },
    ]);
  const known = new Set(plan.numbers.map((n) => n.e164));
  const fresh = entries.flatMap((e) => e.numbers);
  const taken = fresh.find((n) => known.has(n));
  if (taken)
    throw new EditRefused(422, 'invalid', [
      { code: 'taken', path: 'numbers', sentence: `${taken} is one of your numbers already.` },
    ]);
  const id = uuid();
  const numbers = fresh.map((e164) => ({ id: uuid(), e164, site: id, trunk }));
  const main = numbers[0]?.id ?? null;
  const edits: Edit[] = [
    { kind: 'site', id, rowVersion: null, value: { ...fields, id, mainNumber: main, emergencyCallback: main } },
    ...numbers.map((n): Edit => ({ kind: 'number', id: n.id, rowVersion: null, value: n })),
  ];
  try {
    return { ...(await applyEdits(actor, edits)), id };
  } catch (e) {
    if (!(e instanceof EditRefused)) throw e;
    const errors = e.errors.map((x) => ({ ...x, path: x.path.replace(/^edits\.0\.value\.?/, '') }));
    throw new EditRefused(e.status, e.code, errors, e.detail);
  }
}

/** What the form for a new site begins with. */
export async function newSiteData() {
  const { plan } = await draftPlan();
  const names = new Intl.DisplayNames('en', { type: 'region' });
  const used = new Set(plan.sites.map((s) => s.country));
  const first = Object.keys(COUNTRY_FACTS).find((c) => !used.has(c)) ?? 'GB';
  return {
    countries: Object.keys(COUNTRY_FACTS)
      .map((c) => ({ id: c, label: names.of(c) ?? c }))
      .sort((a, b) => a.label.localeCompare(b.label)),
    proposal: proposeSite(plan, plan.sites[0] ? first : 'GB'),
    ladders: plan.ladders.map((l) => ({ id: l.id, label: l.name })),
    trunks: plan.trunks.map((t) => ({
      id: t.id,
      label: t.name,
      country: plan.sites.find((s) => s.id === t.site)?.country ?? '',
    })),
    bySite: plan.organisation.numberSpace === 'site',
  };
}

/** What the draft's site moves against live, in sentences; null for a site that is not live yet. */
export async function movesOf(id: string): Promise<string[] | null> {
  const [draft, live] = await Promise.all([draftPlan(), livePlan()]);
  const [now, was] = [draft, live].map((p) => p.plan.sites.find((s) => s.id === id)) as (Site | undefined)[];
  return now && was ? siteMoves(draft.plan, was, now) : null;
}
