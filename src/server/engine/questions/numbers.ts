import { v7 as uuid } from 'uuid';
import { planAssignment, readNumberList } from '@/core/acts/inventory';
import { proposeSite, siteMoves } from '@/core/acts/sites';
import { trunkParts, waysOut, withoutTrunk } from '@/core/acts/trunk';
import type { AssignInput, ListedNumbers, NewSite, NewTrunk, NumberList } from '@/contract/numbers';
import type { WholeEdit } from '@/contract/plan';
import { emergencyNumbersOf, readText, showNumber } from '@/core/numbers';
import type { PlanNumber, Site } from '@/core/plan';
import { EditRefused, Refused, may } from '../../access/rights';
import type { HeldPlan } from '../ground/held';
import { named } from '../ground/options';
import { sightIn, type By, type Given } from '../ground/question';
import { asEdits } from '../ground/as-edits';

/* Numbers by the list, and sites with what belongs to them. */

export function addNumbersPage({ draft }: Given, { site, reader }: By & { site: string | undefined }) {
  const sight = sightIn(draft, reader);
  const sites = draft.plan.sites.filter((s) => may(reader, 'edit', { area: 'numbers', site: s.id }));
  return {
    account: reader.account,
    canEdit: sites.length > 0,
    site: sites.find((s) => s.id === site)?.id ?? sites[0]?.id ?? '',
    sites: named(sites),
    trunks: sight.list('trunk').map((t) => ({ id: t.id, label: t.name, site: t.site })),
  };
}

/** A number in any spelling as it is read at a site, and as people there write it. */
export function readNumber({ draft }: Given, { text, site, reader }: By & { text: string; site: string }) {
  const at = sightIn(draft, reader)
    .list('site')
    .find((s) => s.id === site);
  if (!at) throw new Refused(422, 'no-such-object', 'The draft has no such site.', 'site');
  const { country, area } = at;
  const { e164, why } = readText(text, { country, area, additions: draft.plan.numberAdditions });
  return { e164, shown: e164 ? showNumber(e164, country) : text, why };
}

/** Other people's numbers, entry by entry, read as at a site; written out with + and country, also those in no known range. */
export function readCallers({ draft }: Given, { text, site, reader }: By & { text: string; site: string }) {
  const at = sightIn(draft, reader)
    .list('site')
    .find((s) => s.id === site);
  if (!at) throw new Refused(422, 'no-such-object', 'The draft has no such site.', 'site');
  const place = { country: at.country, area: at.area, additions: draft.plan.numberAdditions };
  return {
    entries: readNumberList(text, place).map(({ text: entry, numbers, wrong }) => {
      const plain = entry.replace(/[\s().-]/g, '');
      return wrong && /^\+[1-9][0-9]{4,14}$/.test(plain)
        ? { text: entry, numbers: [plain], wrong: null }
        : { text: entry, numbers, wrong };
    }),
  };
}

/** What a pasted list says, entry by entry: numbers, which of them are known already, and what is wrong. */
export function readNumbers({ draft }: Given, { input }: By & { input: NumberList }): ListedNumbers {
  const { plan } = draft;
  const site = plan.sites.find((s) => s.id === input.site);
  if (!site)
    throw new Refused(422, 'no-such-object', 'Choose the site first: its country says how numbers are read.', 'site');
  const known = draft.exchange().numberByE164;
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

/** The edits that add every number of a list that is not known already; refused whole when an entry is wrong. */
export function numberEdits(given: Given, { input, reader }: By & { input: NumberList }) {
  const { entries, fresh } = readNumbers(given, { input, reader });
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
  const edits = fresh.map((e164): WholeEdit => {
    const id = uuid();
    return { kind: 'number', id, rowVersion: null, value: { id, e164, site, trunk, state, activeFrom } };
  });
  // A site without a main number has one from now on: emergency services are shown it, and called back by it.
  const { draft } = given;
  const at = draft.plan.sites.find((s) => s.id === site)!;
  if (at.mainNumber === null && may(reader, 'edit', { area: 'sites', site }))
    edits.push({
      kind: 'site',
      id: site,
      rowVersion: draft.rowVersions.of('site', site)!,
      value: { ...at, mainNumber: edits[0]!.id, emergencyCallback: at.emergencyCallback ?? edits[0]!.id },
    });
  return { edits, added: fresh.length, known: entries.reduce((n, e) => n + e.known, 0) };
}

function assigned(draft: HeldPlan, given: Given, input: AssignInput, by: By) {
  const { plan } = draft;
  const sight = sightIn(draft, by.reader);
  const wanted = new Set(input.numbers);
  const numbers = sight.list('number').filter((n) => wanted.has(n.id));
  const sites = new Set(numbers.map((n) => n.site));
  const owned = new Set(plan.numbers.map((n) => n.belongsTo));
  const chosen = input.extensions && new Set(input.extensions);
  const extensions = sight
    .list('extension')
    .filter((e) => (chosen ? chosen.has(e.id) : sites.has(e.site) && e.kind === 'person' && !owned.has(e.id)));
  return planAssignment(plan, numbers, extensions, input.how);
}

/** Which number would go to which extension; nothing is written. */
export function assignPreview(given: Given, { input, reader }: By & { input: AssignInput }) {
  const { pairs, left } = assigned(given.draft, given, input, { reader });
  const countries = new Map(given.draft.plan.sites.map((s) => [s.id, s.country]));
  const country = (n: PlanNumber) => countries.get(n.site)!;
  return {
    pairs: pairs.map((p) => ({
      number: showNumber(p.number.e164, country(p.number)),
      extension: `${p.extension.digits} ${p.extension.name}`,
    })),
    left,
  };
}

/** The edits that give the numbers as the preview says. */
export function assignEdits(given: Given, { input, reader }: By & { input: AssignInput }): WholeEdit[] {
  const { pairs } = assigned(given.draft, given, input, { reader });
  if (pairs.length === 0) throw new Refused(409, 'nothing-to-do', 'No number finds an extension this way.');
  return asEdits(
    given.draft,
    pairs.map(({ number, extension }) => ({
      kind: 'number' as const,
      before: number,
      after: { ...number, belongsTo: extension.id },
    })),
  );
}

export function siteProposal({ draft }: Given, { country }: By & { country: string }) {
  return proposeSite(draft.plan, country);
}

/** The edits that add a site with its numbers. */
/** What the page that adds a trunk proposes: the sites, and which of them lack a way out or for emergency calls. */
export function newTrunkPage({ draft }: Given, { reader }: By) {
  const { plan } = draft;
  const rungs = new Set(plan.rungs.map((r) => r.ladder));
  const sites = plan.sites.filter((s) => may(reader, 'edit', { area: 'outgoing', site: s.id }));
  return {
    account: reader.account,
    canEdit: sites.length > 0,
    sites: sites.map((s) => ({
      id: s.id,
      label: s.name,
      emergency: [...emergencyNumbersOf(s.country)],
      noEmergency: s.emergencyTrunks.length === 0,
      noWayOut: s.ladder === null || !rungs.has(s.ladder),
      ways: waysOut(s.country, s.outsidePrefix ?? ''),
      withoutTrunk: withoutTrunk(plan, s.id).length,
    })),
  };
}

/** The edits that add a trunk with its numbers and the calls that leave by it; the trunk's own comes first. */
export function trunkEdits(
  { draft, index }: Given,
  { input }: By & { input: Omit<NewTrunk, 'password'> & { withPassword: boolean } },
): { id: string; edits: WholeEdit[] } {
  const { numbers: text, adopts, emergency, outgoing, withPassword, ...fields } = input;
  const { plan, rowVersions } = draft;
  const site = index().object('site', input.site) as Site | null;
  const refuse = (path: string, code: string, sentence: string) =>
    new EditRefused(422, 'invalid', [{ code, path, sentence }]);
  if (!site) throw refuse('site', 'no-such-object', 'Choose the site at which it ends.');
  const entries = readNumberList(text, { country: site.country, area: site.area, additions: plan.numberAdditions });
  const wrong = entries.find((e) => e.wrong);
  if (wrong) throw refuse('numbers', 'invalid', `Line ${wrong.line}: ${wrong.wrong}`);
  const known = draft.exchange().numberByE164;
  const fresh = entries.flatMap((e) => e.numbers).filter((n) => !known.has(n));
  const id = uuid();
  const trunk = { ...fields, id, password: withPassword ? { version: 1 } : null };
  const parts = trunkParts(plan, site, trunk, { numbers: fresh, adopts, emergency, outgoing });
  return {
    id,
    edits: parts.map(({ kind, id: of, value, before }) => ({
      kind,
      id: of,
      rowVersion: before ? rowVersions.of(kind, of)! : null,
      value,
    })),
  };
}

export function siteEdits({ draft }: Given, { input }: By & { input: NewSite }): { id: string; edits: WholeEdit[] } {
  const { numbers: text, trunk, ...fields } = input;
  const { plan } = draft;
  const entries = readNumberList(text, { country: input.country, area: input.area, additions: plan.numberAdditions });
  const refuse = (code: string, sentence: string) =>
    new EditRefused(422, 'invalid', [{ code, path: 'numbers', sentence }]);
  const wrong = entries.find((e) => e.wrong);
  if (wrong) throw refuse('invalid', `Line ${wrong.line}: ${wrong.wrong}`);
  const fresh = entries.flatMap((e) => e.numbers);
  const taken = fresh.find((n) => draft.exchange().numberByE164.has(n));
  if (taken) throw refuse('taken', `${taken} is one of your numbers already.`);
  const id = uuid();
  const numbers = fresh.map((e164) => ({ id: uuid(), e164, site: id, trunk }));
  const main = numbers[0]?.id ?? null;
  return {
    id,
    edits: [
      { kind: 'site', id, rowVersion: null, value: { ...fields, id, mainNumber: main, emergencyCallback: main } },
      ...numbers.map((n): WholeEdit => ({ kind: 'number', id: n.id, rowVersion: null, value: n })),
    ],
  };
}

/** What the form for a new site begins with. */
export function newSite({ draft }: Given, { reader }: By) {
  const { plan } = draft;
  const sight = sightIn(draft, reader);
  const countries = new Map(plan.sites.map((s) => [s.id, s.country]));
  return {
    account: reader.account,
    canEdit: may(reader, 'edit', { area: 'sites', site: null }),
    proposal: proposeSite(plan, plan.sites.at(-1)?.country ?? 'GB'),
    ladders: named(sight.list('ladder')),
    trunks: sight.list('trunk').map((t) => ({ id: t.id, label: t.name, country: countries.get(t.site) ?? '' })),
    bySite: plan.organisation.numberSpace === 'site',
  };
}

/** What the draft's site moves against live, in sentences; null for a site that is not live yet. */
export function movesOfSite({ draft, live }: Given, { id }: { id: string }): string[] | null {
  const now = draft.plan.sites.find((s) => s.id === id);
  const was = live.plan.sites.find((s) => s.id === id);
  return now && was ? siteMoves(draft.plan, was, now) : null;
}
