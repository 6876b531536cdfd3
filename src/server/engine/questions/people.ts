import { v7 as uuid } from 'uuid';
import { describeChanges, planBulk, type BulkResult } from '@/core/acts/bulk';
import {
  SAME_PARTS,
  comparePeople,
  compareRights,
  leaving,
  planLeave,
  planMove,
  planSameAs,
  proposeMove,
  type LeaveChoices,
} from '@/core/acts/people';
import { landingTimes } from '@/core/analysis';
import type { BulkEdit, LeaveInput, MoveInput, NewExtension, SameAsInput } from '@/contract/people';
import type { Edit } from '@/contract/plan';
import { spacedNumber } from '@/core/numbers';
import {
  KINDS,
  freeDigits,
  inputErrors,
  planWith,
  type AnyObject,
  type Changed,
  type Extension,
  type Mailbox,
  type ObjectKind,
  type Person,
  type Plan,
} from '@/core/plan';
import type { Situation } from '@/core/routing';
import { demandFor } from '../../access/areas';
import { EditRefused, Refused, may, type Actor } from '../../access/rights';
import type { HeldPlan } from '../held';
import { fitting } from '../ledger';
import { byLabel, named, optionsFor } from '../options';
import { sightIn, type By, type Given } from '../question';
import { objectPage } from './objects';

/* People and their things: what their pages show, and the edits that joining, moving, leaving and being alike are made of. */

interface Change {
  kind: ObjectKind;
  before: AnyObject | null;
  after: AnyObject | null;
}

export function asEdits(draft: HeldPlan, changes: readonly Change[]): Edit[] {
  return changes.map((c) => {
    const id = (c.after ?? c.before)!.id;
    return {
      kind: c.kind,
      id,
      rowVersion: c.before ? draft.rowVersions.of(c.kind, id) : null,
      value: c.after as unknown as Record<string, unknown> | null,
    };
  });
}

const invalid = (path: string, sentence: string) =>
  new EditRefused(422, 'invalid', [{ code: 'invalid', path, sentence }]);

function personIn(draft: HeldPlan, reader: Actor, id: string, right: 'look' | 'edit'): Person {
  const person = draft.plan.people.find((p) => p.id === id);
  if (!person) throw new Refused(404, 'no-such-object', 'There is no such person.');
  demandFor(reader, right, draft.plan, 'person', person);
  return person;
}

/** Everything of one person: each extension and mailbox with its own page data, numbers, presence, reach plan. */
export function personPage(given: Given, { id, now, situation, reader }: By & { id: string; now: number; situation: Situation }) {
  const data = objectPage(given, { kind: 'person', id, reader });
  if (!data) return null;
  const { draft } = given;
  const { plan } = draft;
  const x = draft.exchange();
  const sight = sightIn(draft, reader);
  const nameOf = (target: string | null) =>
    target === null ? null : (x.destinations.get(target)?.object.name ?? x.extensions.get(target)?.name ?? target);
  const mine = plan.extensions.filter((e) => e.person === id && sight.sees('extension', e));
  const extensions = mine.map((e) => {
    const numbers = plan.numbers.filter((n) => n.belongsTo === e.id && sight.sees('number', n));
    const steps = (e.reachPlan ? (x.reachSteps.get(e.reachPlan) ?? []) : []).map((s) => ({
      rings: nameOf(s.extension ?? s.outside)!,
      outside: s.outside !== null,
      together: s.withPrevious,
      seconds: s.seconds,
    }));
    return {
      data: objectPage(given, { kind: 'extension', id: e.id, reader })!,
      numbers: numbers.map((n) => ({ id: n.id, e164: spacedNumber(n.e164), state: n.state })),
      lands: numbers[0] ? landingTimes(x, numbers[0].e164, now, situation) : [],
      reach: e.reachPlan
        ? { name: nameOf(e.reachPlan)!, steps, end: nameOf(plan.reachPlans.find((r) => r.id === e.reachPlan)!.end) }
        : null,
      presence: plan.presenceRules.map((rule) => {
        const own = (x.presenceChoices.get(e.id) ?? []).find((c) => c.rule === rule.id) ?? null;
        return {
          rule: rule.id,
          name: rule.name,
          usual: {
            internal: rule.internal,
            internalTo: nameOf(rule.internalTo),
            outside: rule.outside,
            outsideTo: nameOf(rule.outsideTo),
          },
          own: own && { ...own, rowVersion: draft.rowVersions.of('presenceChoice', own.id)! },
        };
      }),
      mailbox: e.mailbox ? objectPage(given, { kind: 'mailbox', id: e.mailbox, reader }) : null,
    };
  });
  const { options, long } = optionsFor(sight, ['destination']);
  return sight.cut({
    data,
    extensions,
    destinations: options.destination ?? [],
    manyDestinations: long.length > 0,
  });
}

/** An extension's own numbers beside its page. */
export function extensionPage(given: Given, { id, reader }: By & { id: string }) {
  const data = objectPage(given, { kind: 'extension', id, reader });
  if (!data) return null;
  const sight = sightIn(given.draft, reader);
  const numbers = (given.draft.exchange().numberOf.get(id) ?? []).filter((n) => sight.sees('number', n));
  return { data, numbers: numbers.map((n) => ({ id: n.id, e164: spacedNumber(n.e164) })) };
}

/** One team with its people. */
export function teamPage(given: Given, { id, reader }: By & { id: string }) {
  const data = objectPage(given, { kind: 'team', id, reader });
  if (!data) return null;
  const { plan } = given.draft;
  const sight = sightIn(given.draft, reader);
  const siteNames = new Map(plan.sites.map((s) => [s.id, s.name]));
  const digits = new Map<string, string>();
  for (const e of plan.extensions) if (e.person && !digits.has(e.person)) digits.set(e.person, e.digits);
  const { options, long } = optionsFor(sight, ['person']);
  return {
    data,
    people: options.person!,
    many: long.length > 0,
    mayEditPeople: may(reader, 'edit', { area: 'people', site: null }) || may(reader, 'edit'),
    members: sight
      .list('person')
      .filter((p) => p.teams.includes(id))
      .map((p) => ({ id: p.id, label: p.name, site: siteNames.get(p.site)!, digits: digits.get(p.id) ?? '' }))
      .sort(byLabel)
      .map(({ label, ...p }) => ({ ...p, name: label })),
  };
}

/** The edit that puts a person into a team or takes them out. */
export function memberEdit(
  { draft }: Given,
  { team, person, member, reader }: By & { team: string; person: string; member: boolean },
): Edit[] {
  const who = draft.plan.people.find((p) => p.id === person);
  if (!who || !draft.plan.teams.some((t) => t.id === team))
    throw new Refused(404, 'no-such-object', 'There is no such team or person.');
  demandFor(reader, 'edit', draft.plan, 'person', who);
  if (who.teams.includes(team) === member) throw new Refused(409, 'nothing-to-do', 'It is so already.');
  const teams = member ? [...who.teams, team] : who.teams.filter((t) => t !== team);
  return asEdits(draft, [{ kind: 'person', before: who, after: { ...who, teams } }]);
}

/** What somebody leaves behind, with proposals, and their digits. */
export function leaveProposal({ draft }: Given, { id, choices, reader }: By & { id: string; choices: LeaveChoices }) {
  const person = personIn(draft, reader, id, 'look');
  const own = draft.plan.extensions.filter((e) => e.person === id);
  return sightIn(draft, reader).cut({
    draftVersion: draft.version,
    name: person.name,
    digits: own.map((e) => e.digits),
    items: leaving(draft.plan, id, choices),
    canEdit: may(reader, 'edit'),
  });
}

/** The edits by which somebody leaves, and what becomes of each of their extensions. */
export function leaveEdits({ draft }: Given, { id, input, now, reader }: By & { id: string; input: LeaveInput; now: number }) {
  personIn(draft, reader, id, 'edit');
  if (input.draftVersion !== null && input.draftVersion !== draft.version)
    throw new Refused(
      409,
      'draft-moved',
      'The draft has changed since the list was made; look at it again.',
      'draftVersion',
    );
  const { changed, errors } = planLeave(draft.plan, id, input.choices);
  if (errors.length > 0)
    throw new EditRefused(
      422,
      'invalid',
      errors.map((e) => ({ code: 'invalid', path: `choices.${e.key}`, sentence: e.sentence })),
    );
  const own = draft.plan.extensions.filter((e) => e.person === id);
  const chosen = (e: Extension) => input.choices[`extension ${e.id}`]?.do ?? 'delete';
  const kept = own.filter((e) => chosen(e) === 'keep virtual');
  if (kept.length > 0 && !input.forward)
    throw invalid('forward', 'Say where calls to the extension that is kept go, and until which day.');
  const until = input.forward ? Date.parse(`${input.forward.until}T23:59:59.999Z`) : null;
  if (until !== null && until < now) throw invalid('forward.until', 'That day has passed already.');
  const gone = own.filter((e) => changed.some((c) => c.before.id === e.id && c.after === null));
  const brief = (e: Extension) => ({ id: e.id, digits: e.digits });
  return {
    edits: asEdits(draft, changed),
    ended: own.filter((e) => chosen(e) !== 'hand over').map(brief),
    gone: gone.map(brief),
    kept: kept.map(brief),
    until,
  };
}

export function movePage({ draft }: Given, { id, reader }: By & { id: string }) {
  const { plan } = draft;
  const person = plan.people.find((p) => p.id === id);
  const sight = sightIn(draft, reader);
  if (!person || !sight.sees('person', person)) return null;
  return {
    id,
    name: person.name,
    from: plan.sites.find((s) => s.id === person.site)!.name,
    sites: named(plan.sites.filter((s) => s.id !== person.site)),
    canEdit: may(reader, 'edit', { area: 'people', site: person.site }),
  };
}

export function moveProposal({ draft }: Given, { id, site, reader }: By & { id: string; site: string }) {
  personIn(draft, reader, id, 'look');
  const proposal = proposeMove(draft.plan, id, site);
  if (!proposal) throw new Refused(404, 'no-such-object', 'There is no such site.', 'site');
  return sightIn(draft, reader).cut(proposal);
}

function moved(draft: HeldPlan, id: string, input: MoveInput) {
  const planned = planMove(draft.plan, id, input);
  if (!planned.ok) throw invalid(planned.path, planned.sentence);
  return planned.changed;
}

/** What a move changes, object by object; nothing is written. */
export function movePreview({ draft }: Given, { id, input, reader }: By & { id: string; input: MoveInput }) {
  personIn(draft, reader, id, 'look');
  return sightIn(draft, reader).cut({ lines: describeChanges(draft.plan, moved(draft, id, input)) });
}

export function moveEdits({ draft }: Given, { id, input, reader }: By & { id: string; input: MoveInput }): Edit[] {
  personIn(draft, reader, id, 'edit');
  const changed = moved(draft, id, input);
  if (changed.length === 0) throw new Refused(409, 'nothing-to-do', 'Nothing would be otherwise.');
  return asEdits(draft, changed);
}

/** Two people side by side: what can be copied, and their rights kind by kind. */
export function comparison({ draft }: Given, { id, other, reader }: By & { id: string; other: string }) {
  const person = personIn(draft, reader, id, 'look');
  const second = personIn(draft, reader, other, 'look');
  return sightIn(draft, reader).cut({
    mine: person.name,
    theirs: second.name,
    parts: comparePeople(draft.plan, id, other)!,
    rights: compareRights(draft.plan, id, other),
  });
}

export function sameAsPage(given: Given, { id, asked, reader }: By & { id: string; asked: string | undefined }) {
  const { draft } = given;
  const sight = sightIn(draft, reader);
  const person = draft.plan.people.find((p) => p.id === id);
  if (!person || !sight.sees('person', person)) return null;
  const beside = asked ? sight.list('person').find((p) => p.id === asked) : undefined;
  const { options, long } = optionsFor(sight, ['person']);
  return {
    id,
    name: person.name,
    people: options.person!.filter((o) => o.id !== id),
    many: long.length > 0,
    canEdit: may(reader, 'edit', { area: 'people', site: person.site }),
    other: beside?.id ?? null,
    comparison: beside ? comparison(given, { id, other: beside.id, reader }) : null,
  };
}

/** The edits that make a person like another in some parts. */
export function sameAsEdits({ draft }: Given, { id, input, reader }: By & { id: string; input: SameAsInput }): Edit[] {
  personIn(draft, reader, id, 'edit');
  personIn(draft, reader, input.other, 'look');
  const changes = planSameAs(draft.plan, id, input.other, input.parts, uuid);
  if (changes.length === 0) throw new Refused(409, 'nothing-to-do', 'They are the same in these already.');
  return asEdits(draft, changes);
}

/** The extensions that a selection means: those of the people, the mailboxes' users, or the rows themselves. */
function extensionsOf(reader: Actor, draft: HeldPlan, of: BulkEdit['of']): Extension[] {
  const ask = { filter: of.filter, sort: '', facets: of.facets };
  const ids = new Set(of.ids ?? fitting(reader, draft, of.ledger, ask).map((e) => e.id));
  const extensions = sightIn(draft, reader).list('extension');
  if (of.ledger === 'extension') return extensions.filter((e) => ids.has(e.id));
  if (of.ledger === 'person') return extensions.filter((e) => e.person !== null && ids.has(e.person));
  return extensions.filter((e) => e.mailbox !== null && ids.has(e.mailbox));
}

function bulk(draft: HeldPlan, reader: Actor, { of, change }: BulkEdit): BulkResult {
  if (Object.keys(change).length === 0)
    throw new Refused(400, 'nothing-to-do', 'Nothing is set; choose what is to change.', 'change');
  return planBulk(draft.plan, extensionsOf(reader, draft, of), change);
}

const MOST_LINES = 5_000;

/** The dry run: every change that a bulk edit would make, and what can't be changed so. */
export function bulkPreview({ draft }: Given, { input, reader }: By & { input: BulkEdit }) {
  const { lines, errors } = bulk(draft, reader, input);
  return {
    count: lines.length,
    lines: lines.slice(0, MOST_LINES),
    errors: errors.slice(0, 200),
    draftVersion: draft.version,
  };
}

/** The edits of a bulk change; refused whole when something can't be changed so. */
export function bulkEdits({ draft }: Given, { input, reader }: By & { input: BulkEdit }): { edits: Edit[]; changed: number } {
  const { objects, errors, lines } = bulk(draft, reader, input);
  if (errors.length > 0)
    throw new Refused(422, 'invalid', `${errors[0]!.label}: ${errors[0]!.sentence}`, errors[0]!.path, {
      more: errors.length - 1,
    });
  return { edits: asEdits(draft, objects), changed: lines.length };
}

const OFFERED = 6;

/** What the form for a new extension proposes: per site the free digits and free numbers, and the one to be like. */
export function newExtension({ draft }: Given, { asked, reader }: By & { asked: { site?: string; like?: string } }) {
  const { plan } = draft;
  const sight = sightIn(draft, reader);
  const mine = sight.list('extension');
  const like = mine.find((e) => e.id === asked.like) ?? null;
  const { options, long } = optionsFor(sight, ['person']);
  const sites = plan.sites.filter((s) => may(reader, 'edit', { area: 'people', site: s.id }) || sight.sees('site', s));
  const count = new Map<string, number>();
  for (const e of plan.extensions) count.set(e.site, (count.get(e.site) ?? 0) + 1);
  const largest = [...sites].sort((a, b) => (count.get(b.id) ?? 0) - (count.get(a.id) ?? 0));
  const named_ = new Set([
    ...plan.inboundRoutes.flatMap((r) => r.numbers),
    ...plan.sites.flatMap((s) => s.mainNumber ?? []),
  ]);
  return {
    canEdit: reader.role.grants.some((g) => g.right === 'edit' && (g.areas === 'all' || g.areas.includes('people'))),
    teams: named(sight.list('team')),
    people: options.person!,
    manyPeople: long.length > 0,
    account: reader.account,
    site: sites.find((s) => s.id === (asked.site ?? like?.site))?.id ?? largest[0]?.id ?? '',
    like: like
      ? {
          id: like.id,
          kind: like.kind,
          class: like.class,
          mailbox: like.mailbox !== null,
          ringSeconds: like.ringSeconds,
        }
      : null,
    classes: plan.classes.map((c) => ({ id: c.id, name: c.name })),
    defaultClass: mostUsed(plan.extensions.filter((e) => e.kind === 'person').map((e) => e.class)) ?? plan.classes[0]?.id ?? '',
    sites: sites.map((s) => ({
      id: s.id,
      name: s.name,
      ranges: s.ranges.map((r) => `${r.from} to ${r.to}`).join(', '),
      free: freeAfterLast(plan, s.id),
      numbers: sight
        .list('number')
        .filter(
          (n) =>
            n.site === s.id && n.state === 'active' && n.activeFrom === null && !n.belongsTo && !named_.has(n.id),
        )
        .slice(0, 200)
        .map((n) => ({ id: n.id, e164: spacedNumber(n.e164) })),
    })),
  };
}

/** Free digits after the last person of a site first, since joiners are usually added in order; then the others. */
function freeAfterLast(plan: Plan, site: string): string[] {
  const all = freeDigits(plan, site, 1000);
  let last = '';
  for (const e of plan.extensions) if (e.site === site && e.kind === 'person' && e.digits > last) last = e.digits;
  return [...all.filter((d) => d > last), ...all.filter((d) => d <= last)].slice(0, OFFERED);
}

function mostUsed(list: string[]): string | undefined {
  const counts = new Map<string, number>();
  for (const x of list) counts.set(x, (counts.get(x) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
}

/** The edits that add an extension with its person, mailbox and number; ids of what gets secrets. */
export function newExtensionEdits({ draft }: Given, { wanted }: By & { wanted: NewExtension }) {
  const { plan } = draft;
  const id = uuid();
  const person =
    wanted.makePerson && wanted.kind === 'person'
      ? {
          id: uuid(),
          name: wanted.name,
          email: wanted.mailbox?.email ?? null,
          site: wanted.site,
          teams: wanted.teams,
          language: wanted.language,
        }
      : null;
  const mailbox: Partial<Mailbox> | null = wanted.mailbox
    ? {
        id: uuid(),
        name: wanted.name,
        site: wanted.site,
        owners: person ? [person.id] : [],
        email: wanted.mailbox.email,
      }
    : null;
  const { digits, name, kind, site, place, ringSeconds } = wanted;
  const phone = kind !== 'virtual';
  const extension: Partial<Extension> = {
    id,
    digits,
    name,
    kind,
    site,
    class: wanted.class,
    place,
    person: person?.id ?? null,
    mailbox: mailbox?.id ?? null,
    ...(phone ? { sipPassword: { version: 1 } } : {}),
    ...(ringSeconds === undefined ? {} : { ringSeconds }),
  };
  const edits: Edit[] = [{ kind: 'extension', id, rowVersion: null, value: extension }];
  if (person) edits.push({ kind: 'person', id: person.id, rowVersion: null, value: person });
  if (mailbox) edits.push({ kind: 'mailbox', id: mailbox.id!, rowVersion: null, value: mailbox });
  if (wanted.number) {
    const number = plan.numbers.find((n) => n.id === wanted.number);
    if (!number) throw refusedNumber('no-such-object', 'There is no such number.');
    if (number.belongsTo) throw refusedNumber('taken', `${number.e164} belongs to somebody already.`);
    edits.push(...asEdits(draft, [{ kind: 'number', before: number, after: { ...number, belongsTo: id } }]));
  }
  return {
    id,
    phone,
    mailbox: mailbox?.id ?? null,
    pinLeastDigits: plan.organisation.pinLeastDigits,
    edits: wanted.sameAs && person ? likeOther(plan, edits, person.id, wanted.sameAs) : edits,
  };
}

const refusedNumber = (code: string, sentence: string) => new EditRefused(422, 'invalid', [{ code, path: 'number', sentence }]);

/** The edits with everything of another person copied into what they make. */
function likeOther(plan: Plan, edits: readonly Edit[], person: string, other: string): Edit[] {
  if (!plan.people.some((p) => p.id === other))
    throw new EditRefused(422, 'invalid', [
      { code: 'no-such-object', path: 'sameAs', sentence: 'There is no such person to be like.' },
    ]);
  const made = edits.map((e): Changed => {
    const parsed = KINDS[e.kind as ObjectKind].schema.safeParse(e.value);
    if (!parsed.success) throw new EditRefused(422, 'invalid', inputErrors(parsed.error));
    return { kind: e.kind, id: e.id, value: parsed.data as AnyObject };
  });
  const changes = planSameAs(planWith(plan, made), person, other, SAME_PARTS, uuid);
  const last = new Map(changes.map((c) => [(c.after ?? c.before)!.id, c]));
  const known = new Set(edits.map((e) => e.id));
  const value = (o: AnyObject | null) => o as unknown as Record<string, unknown> | null;
  return [
    ...edits.map((e) => (last.has(e.id) ? { ...e, value: value(last.get(e.id)!.after) } : e)),
    ...changes.flatMap((c): Edit[] =>
      known.has((c.after ?? c.before)!.id)
        ? []
        : [{ kind: c.kind, id: (c.after ?? c.before)!.id, rowVersion: null, value: value(c.after) }],
    ),
  ];
}
