import { plainCell } from '../../formats';
import { DIALLED_KINDS } from '../../plan';
import {
  KINDS,
  inputErrors,
  numberSpaceOf,
  objectsOf,
  type AnyObject,
  type ObjectKind,
  type Plan,
  type PlanNumber,
} from '../../plan';
import { lookupOf, type Lookup } from './cells';
import { COLUMNS, COLUMN_KEYS, type ColumnKey } from './columns';
import type { ImportResult, ImportSettings, ImportedObject, RowOutcome } from './outcome';
import { applyRow, type RowCells, type RowWork } from './row';

/**
 * What a sheet of people and extensions would do to a plan, row by row; nothing is changed. The first row holds the names of
 * the columns. A row whose digits exist changes that extension, in the columns that the sheet has; others add. Errors stand
 * at their cell. Objects are what has to be written when no row is wrong. `makeId` gives ids for what is new.
 */
export function checkSheet(
  plan: Plan,
  rows: readonly (readonly string[])[],
  settings: ImportSettings,
  makeId: () => string,
): ImportResult {
  const look = lookupOf(plan);
  const work = newWork(plan, look, settings, makeId);
  const left = new Set(settings.leaveOut);
  const out: RowOutcome[] = [];
  for (let row = 1; row < rows.length; row++) {
    const cells = cellsOfRow(rows[row]!, settings, row);
    if (Object.values(cells).every((c) => c === '')) continue;
    const outcome: RowOutcome = {
      row,
      action: 'same',
      digits: cells.digits ?? '',
      name: cells.name ?? '',
      errors: [],
      changes: [],
    };
    out.push(outcome);
    if (left.has(row)) outcome.action = 'left out';
    else applyRow(work, cells, outcome);
  }
  settleNumbers(work, out);
  const objects = changedObjects(work, out);
  for (const o of out) if (o.errors.length > 0) o.action = 'wrong';
  return { rows: out, objects, secrets: work.secrets };
}

function cellsOfRow(row: readonly string[], settings: ImportSettings, at: number): RowCells {
  const out: RowCells = {};
  for (const key of COLUMN_KEYS) {
    const column = settings.mapping[key];
    if (column !== undefined) out[key] = plainCell(settings.corrections[at]?.[column] ?? row[column] ?? '');
  }
  return out;
}

function newWork(plan: Plan, look: Lookup, settings: ImportSettings, makeId: () => string): RowWork {
  const spaceOf = (site: string) => numberSpaceOf(plan, site);
  const taken = new Map<string, { kind: ObjectKind; object: { id: string; name: string } }>();
  for (const kind of DIALLED_KINDS)
    for (const o of objectsOf(plan, kind) as unknown as {
      id: string;
      name: string;
      site: string;
      digits?: string | null;
    }[])
      if (o.digits) taken.set(`${spaceOf(o.site)} ${o.digits}`, { kind, object: o });
  return {
    plan,
    look,
    settings,
    makeId,
    spaceOf,
    taken,
    rowOfDigits: new Map(),
    said: new Map(),
    touched: new Map(),
    ownersOfNumbers: new Map(),
    secrets: [],
  };
}

/** A number may belong to one extension: rows that claim the same one, or one that somebody outside the sheet has, are wrong. */
function settleNumbers(work: RowWork, out: readonly RowOutcome[]): void {
  const byRow = new Map(out.map((o) => [o.row, o]));
  const final = new Map<string, { extension: string; row: number }>();
  for (const [extension, { row, numbers }] of work.ownersOfNumbers)
    for (const number of numbers) {
      const wrong = (sentence: string) => byRow.get(row)!.errors.push({ column: 'numbers', sentence });
      const other = final.get(number.id);
      const owner = number.belongsTo;
      if (other) wrong(`${number.e164} stands in row ${other.row + 1} already.`);
      else if (owner && owner !== extension && !work.ownersOfNumbers.has(owner))
        wrong(`${number.e164} belongs to ${work.look.nameOf.get(owner) ?? nameOfOwner(work.plan, owner)}.`);
      else final.set(number.id, { extension, row });
    }
  const letGo = [...work.ownersOfNumbers.keys()].flatMap((id) => work.look.numbersOf.get(id) ?? []);
  for (const number of letGo)
    if (!final.has(number.id)) put(work, 'number', number, { ...number, belongsTo: null }, -1);
  for (const [id, { extension, row }] of final) {
    const number = work.look.numbers.get(id) as PlanNumber;
    if (number.belongsTo !== extension) put(work, 'number', number, { ...number, belongsTo: extension }, row);
  }
}

function nameOfOwner(plan: Plan, id: string): string {
  const extension = plan.extensions.find((e) => e.id === id);
  return extension ? `${extension.digits} ${extension.name}` : 'something else';
}

function put(work: RowWork, kind: ObjectKind, before: AnyObject | null, after: AnyObject, row: number): void {
  work.touched.set(after.id, { kind, before, after, row });
}

const FIELD_COLUMNS: Partial<Record<ObjectKind, Record<string, ColumnKey>>> = {
  extension: {
    digits: 'digits',
    name: 'name',
    kind: 'kind',
    ringSeconds: 'ringSeconds',
    place: 'place',
    note: 'note',
  },
  person: { name: 'person', email: 'email', language: 'language', spelling: 'spelling', teams: 'teams' },
  mailbox: { email: 'mailTo', attachSound: 'attachSound', afterMail: 'afterMail', name: 'name' },
};

/** The objects that differ, each read by its schema; what it refuses stands at the cell it came from. */
function changedObjects(work: RowWork, out: readonly RowOutcome[]): ImportedObject[] {
  const byRow = new Map(out.map((o) => [o.row, o]));
  const objects: ImportedObject[] = [];
  for (const { kind, before, after, row } of work.touched.values()) {
    const parsed = KINDS[kind].schema.safeParse(after);
    const outcome = byRow.get(row);
    if (!parsed.success) {
      for (const e of inputErrors(parsed.error)) {
        const field = e.path.split('.')[0]!;
        const column = FIELD_COLUMNS[kind]?.[field] ?? null;
        const title = column ? COLUMNS[column].title : field;
        const sentence = e.sentence.replace(new RegExp(`^${field}\\b`), title);
        // What was taken over from a cell that is wrong is not told a second time.
        const told = column !== null && work.settings.mapping[column] === undefined && outcome?.errors.length;
        if (outcome && !told && !outcome.errors.some((x) => x.column === column))
          outcome.errors.push({ column, sentence });
      }
      continue;
    }
    if (before === null || JSON.stringify(before) !== JSON.stringify(parsed.data))
      objects.push({ kind, before, after: parsed.data as AnyObject });
  }
  return objects;
}
