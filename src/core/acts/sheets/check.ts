import { plainCell } from '../../formats';
import {
  DIALLED_KINDS,
  KINDS,
  inputErrors,
  labelOf,
  numberSpaceOf,
  objectsOf,
  type AnyObject,
  type ObjectKind,
  type Plan,
} from '../../plan';
import type { SheetKind } from '../../plan/facts/sheet-kinds';
import { nameKey } from '../import/cells';
import type { ImportResult, ImportSettings, ImportedObject, RowOutcome } from '../import/outcome';
import { columnsOf, type SheetColumn } from './columns';
import { Names, type ListOf } from './names';

type Value = Record<string, unknown>;

/** What is known and gathered while the rows of a sheet are gone through. */
interface Work {
  plan: Plan;
  kind: SheetKind;
  columns: SheetColumn[];
  settings: ImportSettings;
  names: Names;
  makeId: () => string;
  find: (cells: Value) => AnyObject | 'several' | null;
  /** the row that is about an object, by its id, or about a new one, by its key */
  rowOf: Map<string, number>;
  objects: (ImportedObject & { row: number })[];
  /** the last position taken, by what is counted apart */
  last: Map<string, number>;
}

/** A sheet of one kind: a row of titles, then one row each. Read again it changes nothing. */
export function writeObjects(kind: SheetKind, listOf: ListOf): string[][] {
  const names = new Names(listOf);
  const columns = columnsOf(kind);
  return [
    columns.map((c) => c.title),
    ...listOf(kind).map((o) => columns.map((c) => c.write((o as unknown as Value)[c.key], names))),
  ];
}

/**
 * What a sheet of one kind would do to a plan, row by row; nothing is changed. The first row holds the names of the columns. A
 * row is about the object with its digits, else the one with its name (a time rule: with its route, hours and when), and changes
 * it in the columns that the sheet has; others add. Things are named as `listOf` shows them, to whoever imports.
 */
export function checkObjects(
  plan: Plan,
  {
    kind,
    rows,
    settings,
    listOf,
    makeId,
  }: {
    kind: SheetKind;
    rows: readonly (readonly string[])[];
    settings: ImportSettings;
    listOf: ListOf;
    makeId: () => string;
  },
): ImportResult {
  const names = new Names(listOf);
  const work: Work = {
    plan,
    kind,
    columns: columnsOf(kind),
    settings,
    names,
    makeId,
    find: finder(plan, kind, listOf(kind), digitsIn(rows, settings)),
    rowOf: new Map(),
    objects: [],
    last: new Map(),
  };
  const left = new Set(settings.leaveOut);
  const out: RowOutcome[] = [];
  for (let row = 1; row < rows.length; row++) {
    const cells = cellsOf(work, rows[row]!, row);
    if ([...cells.values()].every((c) => c === '')) continue;
    const outcome: RowOutcome = {
      row,
      action: 'same',
      digits: cells.get('digits') ?? '',
      name: cells.get('name') ?? cells.get('route') ?? '',
      errors: [],
      changes: [],
    };
    out.push(outcome);
    if (left.has(row)) outcome.action = 'left out';
    else applyRow(work, cells, outcome);
  }
  digitsOnce(work, listOf, out);
  for (const o of out) if (o.errors.length > 0) o.action = 'wrong';
  return { rows: out, objects: work.objects.map(({ row: _row, ...o }) => o), secrets: [] };
}

function cellsOf({ columns, settings }: Work, row: readonly string[], at: number): Map<string, string> {
  const out = new Map<string, string>();
  for (const { key } of columns) {
    const column = settings.mapping[key];
    if (column !== undefined) out.set(key, plainCell(settings.corrections[at]?.[column] ?? row[column] ?? '').trim());
  }
  return out;
}

function applyRow(work: Work, cells: ReadonlyMap<string, string>, outcome: RowOutcome): void {
  const { kind, columns, settings, names } = work;
  const fail = (column: string | null, sentence: string) => void outcome.errors.push({ column, sentence });
  const read: Value = {};
  for (const { key, title, read: reading } of columns) {
    const text = cells.get(key);
    if (text === undefined) continue;
    const cell = reading(text, names);
    if (cell.ok) read[key] = cell.value;
    // A new object's empty cell is what new ones get, or is missing as a whole.
    else if (text !== '') fail(key, cell.sentence.startsWith('is ') ? `${title} ${cell.sentence}` : cell.sentence);
  }
  const where = { ...read, site: read.site ?? settings.site ?? undefined };
  const before = outcome.errors.length > 0 ? null : work.find(where);
  if (before === 'several') return fail('name', `${outcome.name} is more than one; their digits tell them apart.`);
  const key = before?.id ?? keyOf(kind, where);
  const twice = work.rowOf.get(key);
  if (twice !== undefined && outcome.errors.length === 0)
    return fail(null, `Row ${twice + 1} is about ${outcome.name || outcome.digits} already.`);
  work.rowOf.set(key, outcome.row);
  if (outcome.errors.length > 0) return;
  const given = before ? changed(work, before, cells, read, outcome) : fresh(work, cells, read);
  const parsed = KINDS[kind].schema.safeParse(given);
  if (!parsed.success) {
    for (const e of inputErrors(parsed.error)) {
      const field = e.path.split('.')[0]!;
      const column = columns.find((c) => c.key === field);
      if (outcome.errors.some((x) => x.column === (column?.key ?? null))) continue;
      fail(column?.key ?? null, e.sentence.replace(new RegExp(`^${field}\\b`), column?.title ?? field));
    }
    return;
  }
  const after = parsed.data as AnyObject;
  if (before === null) outcome.action = 'add';
  else if (JSON.stringify(before) === JSON.stringify(after)) outcome.changes = [];
  else outcome.action = 'change';
  if (outcome.action !== 'same') work.objects.push({ kind, before, after, row: outcome.row });
}

/** The object as the row makes it; what the sheet says as it stands is left alone. */
function changed(
  { columns, names }: Work,
  before: AnyObject,
  cells: ReadonlyMap<string, string>,
  read: Value,
  outcome: RowOutcome,
): Value {
  const value: Value = { ...before };
  for (const { key, title, write, read: reading } of columns) {
    const text = cells.get(key);
    if (text === undefined) continue;
    const was = write(value[key], names);
    if (text === plainCell(was).trim()) continue;
    if (!(key in read)) {
      const cell = reading(text, names);
      if (!cell.ok) outcome.errors.push({ column: key, sentence: `${title} is empty.` });
      continue;
    }
    if (JSON.stringify(read[key]) === JSON.stringify(value[key])) continue;
    value[key] = read[key];
    outcome.changes.push({ column: key, before: was, after: text });
  }
  return value;
}

/** A new object: what its row says, and what new ones get. */
function fresh(work: Work, cells: ReadonlyMap<string, string>, read: Value): Value {
  const said = Object.fromEntries(Object.entries(read).filter(([key]) => cells.get(key) !== '' || key === 'name'));
  const { shape } = KINDS[work.kind].schema;
  return {
    ...('site' in shape && work.settings.site ? { site: work.settings.site } : {}),
    ...('class' in shape && work.settings.class ? { class: work.settings.class } : {}),
    ...('position' in shape && said.position === undefined ? { position: nextPosition(work, read) } : {}),
    ...said,
    id: work.makeId(),
  };
}

const POSITIONS_APART = 10;

/** Behind the last of its list: of all, or of its route. */
function nextPosition({ plan, kind, last }: Work, read: Value): number {
  const group = kind === 'routeRule' ? String(read.route) : '';
  const known = objectsOf(plan, kind) as unknown as { position: number; route?: string }[];
  const highest =
    last.get(group) ?? Math.max(0, ...known.filter((o) => group === '' || o.route === group).map((o) => o.position));
  last.set(group, highest + POSITIONS_APART);
  return highest + POSITIONS_APART;
}

const keyOf = (kind: SheetKind, { name, digits, site, route, hours, when }: Value): string =>
  kind === 'routeRule'
    ? `rule ${String(route)} ${String(hours)} ${String(when)}`
    : digits
      ? `digits ${String(site)} ${String(digits)}`
      : `name ${nameKey(String(name ?? ''))}`;

/** Digits that rows of the sheet are about. */
function digitsIn(rows: readonly (readonly string[])[], { mapping, corrections }: ImportSettings): Set<string> {
  const at = mapping.digits;
  if (at === undefined) return new Set();
  return new Set(rows.slice(1).map((row, i) => plainCell(corrections[i + 1]?.[at] ?? row[at] ?? '').trim()));
}

/**
 * Finds what a row is about among what there is: by its digits; by its name where the sheet has no row for the digits of the one
 * that is called so.
 */
function finder(plan: Plan, kind: SheetKind, list: readonly AnyObject[], inSheet: ReadonlySet<string>): Work['find'] {
  const all = list as unknown as (Value & AnyObject)[];
  const spaceOf = (site: unknown) => numberSpaceOf(plan, String(site));
  const grouped = new Map<string, AnyObject[]>();
  const put = (key: string, o: AnyObject) => grouped.set(key, [...(grouped.get(key) ?? []), o]);
  for (const o of all) {
    if (kind === 'routeRule') put(keyOf(kind, o), o);
    else put(`name ${nameKey(String(o.name))}`, o);
    if (o.digits) put(`digits ${spaceOf(o.site)} ${String(o.digits)}`, o);
  }
  const spaces = new Set(plan.sites.map((s) => spaceOf(s.id)));
  return (cells) => {
    if (cells.digits) {
      const [only] = spaces.size === 1 ? spaces : [cells.site === undefined ? undefined : spaceOf(cells.site)];
      const [found] = grouped.get(`digits ${only} ${String(cells.digits)}`) ?? [];
      if (found) return found;
    }
    const called = grouped.get(kind === 'routeRule' ? keyOf(kind, cells) : `name ${nameKey(String(cells.name ?? ''))}`);
    const found = called?.filter((o) => !cells.digits || !inSheet.has(String((o as Value & AnyObject).digits)));
    return found?.length ? (found.length > 1 ? 'several' : found[0]!) : null;
  };
}

/** Digits stand once in a number space: rows that claim the same ones, or some that something else has, are wrong. */
function digitsOnce({ plan, kind, objects }: Work, listOf: ListOf, out: readonly RowOutcome[]): void {
  const byRow = new Map(out.map((o) => [o.row, o]));
  const after = new Map(objects.map((o) => [o.after.id, o]));
  const taken = new Map<string, { label: string; row: number | null }>();
  const digitsOf = (o: AnyObject) => o as unknown as { site: string; digits?: string | null };
  const keyed = (o: AnyObject) => `${numberSpaceOf(plan, digitsOf(o).site)} ${digitsOf(o).digits}`;
  for (const other of DIALLED_KINDS) {
    const seen = new Set(listOf(other).map((o) => o.id));
    for (const o of objectsOf(plan, other) as readonly AnyObject[]) {
      if (!digitsOf(o).digits || after.has(o.id)) continue;
      taken.set(keyed(o), { label: seen.has(o.id) ? labelWith(other, o) : 'taken elsewhere', row: null });
    }
  }
  for (const o of objects) {
    if (!digitsOf(o.after).digits) continue;
    const known = taken.get(keyed(o.after));
    if (!known) taken.set(keyed(o.after), { label: labelWith(kind, o.after), row: o.row });
    else
      byRow.get(o.row)!.errors.push({
        column: 'digits',
        sentence: `${digitsOf(o.after).digits} is already ${known.row === null ? known.label : `in row ${known.row + 1}`}.`,
      });
  }
}

const labelWith = (kind: ObjectKind, o: AnyObject) => `${KINDS[kind].word} ${labelOf(kind, o)}`;
