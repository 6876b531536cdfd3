import { mapFaults, touchesMaps } from './entangled';
import {
  danglingFault,
  idTwiceFault,
  keyFault,
  keysOf,
  organisationReferences,
  rangeFaults,
  referencesOf,
  spacesOf,
  type Fault,
  type Known,
} from './faults';
import { integrityErrors, organisationFaults } from './integrity';
import { objectsOf, type Plan } from './plan';
import type { Changed } from './plan-with';
import type { InputError } from './problem';
import { referrersOf } from './references';
import { KINDS, OBJECT_KINDS, labelOf, type AnyObject, type DraftKind, type ObjectKind } from './registry';

/**
 * A plan's objects by id and by what they share with nobody, carried along from edit to edit, so that an edit is checked
 * against what it can break and not against everything. The plan must be whole.
 */
export class PlanIndex {
  private readonly byId = new Map<string, Known>();
  private readonly holders = new Map<string, string>();

  constructor(private plan: Plan) {
    for (const kind of OBJECT_KINDS)
      for (const object of objectsOf(plan, kind)) this.byId.set(object.id, { kind, object });
    this.fillHolders();
  }

  get(id: string): Known | undefined {
    return this.byId.get(id);
  }

  /** The object of a kind and id as it stands; null when there is none of that kind. */
  object(kind: DraftKind, id: string): AnyObject | Plan['organisation'] | null {
    if (kind === 'organisation') return this.plan.organisation;
    const found = this.byId.get(id);
    return found?.kind === kind ? found.object : null;
  }

  private fillHolders(): void {
    this.holders.clear();
    const spaces = spacesOf(this.plan);
    for (const [id, { kind, object }] of this.byId)
      for (const { text } of keysOf(kind, object, spaces)) this.holders.set(text, id);
  }

  /** Follows edits that were made, one after the other; `after` is the plan that they left. */
  advance(after: Plan, made: readonly Changed[]): void {
    // Of several edits of one object, such as one that was set and then deleted, the last says how it stands.
    const edits = [...new Map(made.map((e) => [e.id, e])).values()];
    const spacesChanged = after.organisation.numberSpace !== this.plan.organisation.numberSpace;
    const spaces = spacesOf(this.plan);
    for (const e of edits) {
      const before = e.kind === 'organisation' ? undefined : this.byId.get(e.id);
      if (!before) continue;
      for (const { text } of keysOf(before.kind, before.object, spaces))
        if (this.holders.get(text) === e.id) this.holders.delete(text);
      this.byId.delete(e.id);
    }
    this.plan = after;
    for (const e of edits)
      if (e.kind !== 'organisation' && e.value) this.byId.set(e.id, { kind: e.kind, object: e.value as AnyObject });
    if (spacesChanged) return this.fillHolders();
    for (const e of edits)
      if (e.kind !== 'organisation' && e.value)
        for (const { text } of keysOf(e.kind, e.value as AnyObject, spaces)) this.holders.set(text, e.id);
  }

  /**
   * What edits would break, said at their fields as `edits.0.value.digits`; empty when the plan after them (`after`) is whole.
   * Looks at what the edits are about, at what refers to things that go, and at maps and ranges only where they change.
   */
  errorsOf(after: Plan, edits: readonly Changed[]): InputError[] {
    // Digits that were unique in the organisation may meet per site, or the other way: everything is looked at.
    if (after.organisation.numberSpace !== this.plan.organisation.numberSpace)
      return integrityErrors(after).map((e) => ({ ...e, path: pathInEdits(after, e.path, edits) }));
    const changed = new Map(edits.filter((e) => e.kind !== 'organisation').map((e) => [e.id, e]));
    const find = (id: string): Known | undefined => {
      const change = changed.get(id);
      if (!change) return this.byId.get(id);
      return change.value ? { kind: change.kind as ObjectKind, object: change.value as AnyObject } : undefined;
    };
    const faults = [
      ...this.goneFaults(after, edits),
      ...this.ownFaults(after, edits, find),
      ...(edits.some((e) => e.kind === 'organisation') ? organisationFaults(after, find) : []),
      ...(edits.some((e) => this.changesRanges(e)) ? rangeFaults(after) : []),
    ];
    if (faults.length === 0 && edits.some((e) => touchesMaps(e.kind, this.object(e.kind, e.id), e.value)))
      faults.push(...mapFaults(after, new Set(edits.map((e) => e.id))));
    return faults.map((f) => said(f, edits));
  }

  /** Things that are deleted and still referred to. */
  private goneFaults(after: Plan, edits: readonly Changed[]): Fault[] {
    const gone = edits.filter((e) => e.value === null && e.kind !== 'organisation');
    if (gone.length === 0) return [];
    const referrers = referrersOf(after, new Set(gone.map((e) => e.id)));
    return gone.flatMap((e) => {
      const left = [
        ...organisationReferences(after).flatMap((r) => (r.id === e.id ? `the organisation (${r.title})` : [])),
        ...(referrers.get(e.id) ?? []).map((r) => `${KINDS[r.kind].word} ${labelOf(r.kind, r.object)}`),
      ];
      if (left.length === 0) return [];
      const names = left.slice(0, 4);
      const known = this.byId.get(e.id);
      const what = known ? `${KINDS[known.kind].word} ${labelOf(known.kind, known.object)}` : 'this';
      const more = left.length > 4 ? ` and ${left.length - 4} more` : '';
      return [
        {
          kind: e.kind,
          id: e.id,
          field: '',
          code: 'still-referred-to',
          sentence: `${names.join(', ')}${more} still refer to ${what}; change them first.`,
        },
      ];
    });
  }

  private ownFaults(after: Plan, edits: readonly Changed[], find: (id: string) => Known | undefined): Fault[] {
    const faults: Fault[] = [];
    const spaces = spacesOf(after);
    const taken = new Map<string, { kind: ObjectKind; object: AnyObject }>();
    for (const e of edits) {
      if (e.kind === 'organisation' || !e.value) continue;
      const [kind, object] = [e.kind, e.value as AnyObject];
      const before = this.byId.get(e.id);
      if (before && before.kind !== kind) faults.push(idTwiceFault(kind, object, before));
      for (const reference of referencesOf(kind, object)) {
        const fault = danglingFault({ kind, id: object.id }, reference, find(reference.id));
        if (fault) faults.push(fault);
      }
      for (const { text, of } of keysOf(kind, object, spaces)) {
        const beside = taken.get(text);
        if (beside) {
          faults.push(keyFault(kind, object, of, beside.object), keyFault(beside.kind, beside.object, of, object));
          continue;
        }
        taken.set(text, { kind, object });
        const holder = this.holders.get(text);
        if (holder === undefined || holder === e.id) continue;
        const other = find(holder);
        // Whoever had it may give it up in the same edit.
        const keeps = other && keysOf(other.kind, other.object, spaces).some((k) => k.text === text);
        if (keeps && other.object !== object) faults.push(keyFault(kind, object, of, other.object));
      }
    }
    return faults;
  }

  private changesRanges(e: Changed): boolean {
    if (e.kind !== 'site' || !e.value) return false;
    const before = this.object('site', e.id) as { ranges: unknown } | null;
    return JSON.stringify(before?.ranges) !== JSON.stringify((e.value as unknown as { ranges: unknown }).ranges);
  }
}

/** A fault at the field of the edit that causes it; at the object where none of the edits is about it. */
function said({ kind, id, field, code, sentence }: Fault, edits: readonly Changed[]): InputError {
  const at = edits.findIndex((e) => e.kind === kind && e.id === id);
  const place = at >= 0 ? [`edits.${at}`, ...(field ? ['value', field] : [])] : [listOf(kind), id, field];
  return { code, path: place.filter(Boolean).join('.'), sentence };
}

const listOf = (kind: DraftKind) => (kind === 'organisation' ? '' : KINDS[kind].list);

/** `extensions.12.digits` as `edits.0.value.digits` where that object is being edited. */
function pathInEdits(plan: Plan, path: string, edits: readonly Changed[]): string {
  const [list, index, ...field] = path.split('.');
  if (list === 'organisation') return `edits.${edits.findIndex((e) => e.kind === 'organisation')}.value.${index}`;
  const kind = OBJECT_KINDS.find((k) => KINDS[k].list === list);
  const object = kind && objectsOf(plan, kind)[Number(index)];
  const at = object ? edits.findIndex((e) => e.kind === kind && e.id === object.id) : -1;
  return at < 0 ? path : ['edits', at, 'value', ...field].join('.');
}
