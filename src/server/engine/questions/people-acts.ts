import { bulkFieldsOf, describeChanges, planBulk, type BulkResult } from '@/core/acts/bulk';
import { leaving, planLeave, planMove, proposeMove, type LeaveChoices } from '@/core/acts/people';
import { endOfDay } from '@/core/hours';
import type { BulkEdit, LeaveInput, MoveInput } from '@/contract/people';
import type { WholeEdit } from '@/contract/plan';
import { KINDS, type AnyObject, type Extension, type LedgerKind, type PlanNumber } from '@/core/plan';
import { isSheetKind, type SheetKind } from '@/core/plan/facts/sheet-kinds';
import { demandFor } from '../../access/areas';
import { EditRefused, Refused, may, type Actor } from '../../access/rights';
import type { Both, HeldPlan } from '../ground/held';
import { fitting } from '../ground/ledger';
import { named } from '../ground/options';
import { sightIn, type By, type Given } from '../ground/question';
import { asEdits } from '../ground/as-edits';
import { personIn, refusedField } from '../ground/person-in';

/* The edits that joining a team, moving, leaving and changing many at once are made of. */

/** Edits, and what the act they make is called. */
interface NamedEdits {
  edits: WholeEdit[];
  act: string;
}

/** The edit that puts a person into a team or takes them out. */
export function memberEdit(
  { draft }: Given,
  { team, person, member, reader }: By & { team: string; person: string; member: boolean },
): NamedEdits {
  const who = draft.plan.people.find((p) => p.id === person);
  const which = draft.plan.teams.find((t) => t.id === team);
  if (!who || !which) throw new Refused(404, 'no-such-object', 'There is no such team or person.');
  demandFor(reader, 'edit', draft.plan, 'person', who);
  if (who.teams.includes(team) === member) throw new Refused(409, 'nothing-to-do', 'It is so already.');
  const teams = member ? [...who.teams, team] : who.teams.filter((t) => t !== team);
  return {
    edits: asEdits(draft, [{ kind: 'person', before: who, after: { ...who, teams } }]),
    act: member ? `put ${who.name} into team ${which.name}` : `took ${who.name} out of team ${which.name}`,
  };
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

/** What leaving would change, object by object; what can't be is left out until it is chosen. */
export function leavePreview({ draft }: Given, { id, choices, reader }: By & { id: string; choices: LeaveChoices }) {
  personIn(draft, reader, id, 'look');
  return sightIn(draft, reader).cut({ lines: describeChanges(draft.plan, planLeave(draft.plan, id, choices).changed) });
}

/** The edits by which somebody leaves, and what becomes of each of their extensions. */
export function leaveEdits(
  { draft }: Given,
  { id, input, now, reader }: By & { id: string; input: LeaveInput; now: number },
) {
  const person = personIn(draft, reader, id, 'edit');
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
    throw refusedField('forward', 'Say where calls to the extension that is kept go, and until which day.');
  const { zone } = draft.plan.sites.find((s) => s.id === person.site)!;
  const until = input.forward ? endOfDay(input.forward.until, zone) : null;
  if (until !== null && until < now) throw refusedField('forward.until', 'That day has passed already.');
  const gone = own.filter((e) => changed.some((c) => c.before.id === e.id && c.after === null));
  const brief = (e: Extension) => ({ id: e.id, digits: e.digits });
  return {
    edits: asEdits(draft, changed),
    act: `made ${person.name} leave`,
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
  if (!planned.ok) throw refusedField(planned.path, planned.sentence);
  return planned.changed;
}

/** What a move changes, object by object; nothing is written. */
export function movePreview({ draft }: Given, { id, input, reader }: By & { id: string; input: MoveInput }) {
  personIn(draft, reader, id, 'look');
  return sightIn(draft, reader).cut({ lines: describeChanges(draft.plan, moved(draft, id, input)) });
}

export function moveEdits({ draft }: Given, { id, input, reader }: By & { id: string; input: MoveInput }): NamedEdits {
  const person = personIn(draft, reader, id, 'edit');
  const changed = moved(draft, id, input);
  if (changed.length === 0) throw new Refused(409, 'nothing-to-do', 'Nothing would be otherwise.');
  const to = draft.plan.sites.find((s) => s.id === input.site)!;
  return { edits: asEdits(draft, changed), act: `moved ${person.name} to ${to.name}` };
}
/** Ids of the rows that a selection means. */
const chosenIds = (reader: Actor, both: Both, of: BulkEdit['of']): Set<string> =>
  new Set(
    // Rows of the other kinds are chosen by their ids.
    of.ids ??
      fitting(reader, both, of.ledger as LedgerKind, { filter: of.filter, sort: '', facets: of.facets }).map(
        (e) => e.id,
      ),
  );

/** The numbers that a selection means. */
function numbersOf(reader: Actor, both: Both, of: BulkEdit['of']): PlanNumber[] {
  const ids = chosenIds(reader, both, of);
  return sightIn(both.draft, reader)
    .list('number')
    .filter((n) => ids.has(n.id));
}

/** The extensions that a selection means: those of the people, the mailboxes' users, or the rows themselves. */
function extensionsOf(reader: Actor, both: Both, of: BulkEdit['of']): Extension[] {
  const ids = chosenIds(reader, both, of);
  const extensions = sightIn(both.draft, reader).list('extension');
  if (of.ledger === 'extension') return extensions.filter((e) => ids.has(e.id));
  if (of.ledger === 'person') return extensions.filter((e) => e.person !== null && ids.has(e.person));
  return extensions.filter((e) => e.mailbox !== null && ids.has(e.mailbox));
}

/** Rows of one kind's ledger are chosen by id. */
function bulkOfKind({ draft }: Both, reader: Actor, kind: SheetKind, { of, change }: BulkEdit): BulkResult {
  const known = new Set(bulkFieldsOf(kind).map((f) => f.field));
  const wrong =
    Object.keys(change).find((k) => k !== 'fields') ??
    Object.keys(change.fields ?? {}).find((field) => !known.has(field));
  if (wrong)
    throw new Refused(
      422,
      'not-of-these',
      `${wrong} is nothing that ${KINDS[kind].words} are set to together.`,
      'change',
    );
  if (of.ids === null) throw new Refused(422, 'no-rows', 'Choose the rows by their ids.', 'of.ids');
  const ids = new Set(of.ids);
  const chosen = (sightIn(draft, reader).list(kind) as AnyObject[]).filter((o) => ids.has(o.id));
  return planBulk(
    draft.plan,
    [],
    change,
    [],
    chosen.map((object) => ({ kind, object })),
  );
}

function bulk(both: Both, reader: Actor, { of, change }: BulkEdit): BulkResult {
  const { draft } = both;
  if (Object.keys(change).length === 0)
    throw new Refused(400, 'nothing-to-do', 'Nothing is set; choose what is to change.', 'change');
  if (isSheetKind(of.ledger)) return bulkOfKind(both, reader, of.ledger, { of, change });
  const wrong =
    of.ledger === 'number'
      ? Object.keys(change).find((k) => k !== 'number')
      : Object.keys(change).find((k) => k === 'number' || k === 'fields');
  if (wrong)
    throw new Refused(422, 'not-of-these', `${wrong} is nothing that the rows chosen have.`, `change.${wrong}`);
  return of.ledger === 'number'
    ? planBulk(draft.plan, [], change, numbersOf(reader, both, of))
    : planBulk(draft.plan, extensionsOf(reader, both, of), change);
}

const MOST_LINES = 5_000;

/** The dry run: every change that a bulk edit would make, and what can't be changed so. */
export function bulkPreview(given: Given, { input, reader }: By & { input: BulkEdit }) {
  const { draft } = given;
  const { lines, errors } = bulk(given, reader, input);
  return sightIn(draft, reader).cut({
    count: lines.length,
    lines: lines.slice(0, MOST_LINES),
    errors: errors.slice(0, 200),
    draftVersion: draft.version,
  });
}

/** The edits of a bulk change; refused whole when something can't be changed so. */
export function bulkEdits(given: Given, { input, reader }: By & { input: BulkEdit }): NamedEdits & { changed: number } {
  const { draft } = given;
  const { objects, errors, lines } = bulk(given, reader, input);
  if (errors.length > 0)
    throw new Refused(422, 'invalid', `${errors[0]!.label}: ${errors[0]!.sentence}`, errors[0]!.path, {
      more: errors.length - 1,
    });
  const { number, fields, ...others } = input.change;
  const what = Object.keys({ ...others, ...number, ...fields }).length;
  return {
    edits: asEdits(draft, objects),
    changed: lines.length,
    act: `set ${what} ${what === 1 ? 'thing' : 'things'} of ${objects.length} ${objects.length === 1 ? 'object' : 'objects'} at once`,
  };
}
