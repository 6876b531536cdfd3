import type { AnyObject, ObjectKind, Plan } from '@/core/plan';
import { changeMany, insertRows, placeholders, times } from './many';
import { change, type Writer, type SqlValue } from './pool';
import { ORGANISATION, WRITE_ORDER, quoted, tableOf, toSql, type Column } from './tables';

/** One object to be written: as it was and as it will be, null where it is not; `rowVersion` is that of the row to be changed. */
export interface WrittenObject {
  kind: ObjectKind;
  id: string;
  before: AnyObject | null;
  after: AnyObject | null;
  rowVersion: number | null;
}

/** Told how many objects are written; throws to stop. */
export type OnWritten = (count: number) => Promise<void>;

/**
 * Writes objects in an order in which no foreign key is ever broken: let go of what goes, free digits, insert with the
 * references that exist already, fill in the others, change, delete. Many rows go in one statement. False when a row has
 * another version by now.
 */
export async function writeObjects(
  connection: Writer,
  objects: readonly WrittenObject[],
  spaceOf: (object: AnyObject) => string,
  onWritten: OnWritten = async () => {},
): Promise<boolean> {
  const byKind = new Map<ObjectKind, WrittenObject[]>();
  for (const o of objects) {
    const list = byKind.get(o.kind) ?? [];
    byKind.set(o.kind, list);
    list.push(o);
  }
  const of = (kind: ObjectKind) => byKind.get(kind) ?? [];
  let done = 0;
  const tick = (count: number) => onWritten((done += count));

  for (const kind of WRITE_ORDER)
    await letGo(
      connection,
      kind,
      of(kind).filter((o) => o.before && !o.after),
    );
  await freeUnique(connection, objects);
  const fresh = objects.filter((o) => !o.before && o.after);
  const missing = new Set(fresh.map((o) => o.id));
  const unfinished: WrittenObject[] = [];
  for (const kind of WRITE_ORDER) {
    const added = of(kind).filter((o) => !o.before && o.after);
    unfinished.push(...(await insertAll(connection, kind, added, spaceOf, missing)));
    for (const o of added) missing.delete(o.id);
    await tick(added.length);
  }
  for (const kind of WRITE_ORDER) {
    await insertLists(
      connection,
      kind,
      of(kind).filter((o) => !o.before && o.after),
    );
    const loose = tableOf(kind).own.filter((c) => c.looseRef);
    await fillIn(
      connection,
      kind,
      loose,
      unfinished.filter((o) => o.kind === kind),
    );
  }
  for (const kind of WRITE_ORDER) {
    const changed = of(kind).filter((o) => o.before && o.after);
    if (!(await changeAll(connection, kind, changed, spaceOf))) return false;
    await tick(changed.length);
  }
  for (const kind of [...WRITE_ORDER].reverse()) {
    const gone = of(kind).filter((o) => o.before && !o.after);
    if (!(await deleteAll(connection, kind, gone))) return false;
    await tick(gone.length);
  }
  return true;
}

/** Frees digits and numbers that change or go, so that what is written next may have them, or two may change places. */
async function freeUnique(connection: Writer, objects: readonly WrittenObject[]): Promise<void> {
  const known = objects.filter((o) => o.before);
  await changeMany(
    connection,
    known.filter((o) => digitsOf(o.before!) !== (o.after ? digitsOf(o.after) : null)).map((o) => [o.id]),
    (n) => `UPDATE destination SET digits = NULL WHERE id IN (${times(n, '?')})`,
  );
  const numbers = known.filter(
    (o) => o.kind === 'number' && field(o.before!, 'e164') !== (o.after && field(o.after, 'e164')),
  );
  // No number begins with a tilde; this one stands in the row until the new one is written or the row goes.
  const waiting = numbers.map((o, i): SqlValue[] => [o.id, `~${i}`]);
  await updateJoined(connection, quoted(tableOf('number').table), ['e164'], waiting, '');
}

const digitsOf = (object: AnyObject) => ('digits' in object ? object.digits : null);
const field = (object: AnyObject, name: string) => (object as unknown as Record<string, unknown>)[name];

/** Inserts objects; references to what is still missing stay empty. Gives the objects for which some did. */
async function insertAll(
  connection: Writer,
  kind: ObjectKind,
  objects: readonly WrittenObject[],
  spaceOf: (object: AnyObject) => string,
  missing: ReadonlySet<string>,
): Promise<WrittenObject[]> {
  if (objects.length === 0) return [];
  const map = tableOf(kind);
  if (map.destination) {
    const digits = map.shared.some((c) => c.column === 'digits') ? [] : ['digits'];
    await insertRows(
      connection,
      'destination',
      ['id', 'kind', 'space', ...map.shared.map((c) => quoted(c.column)), ...digits],
      objects.map(({ after }) => [
        after!.id,
        kind,
        spaceOf(after!),
        ...map.shared.map((c) => toSql(c, after!)),
        ...digits.map(() => null),
      ]),
    );
  }
  const left: WrittenObject[] = [];
  const rows = objects.map((o): SqlValue[] => {
    let waits = false;
    const values = map.own.map((c) => {
      const waiting = c.looseRef && missing.has(String(field(o.after!, c.field)));
      waits ||= waiting;
      return waiting ? null : toSql(c, o.after!);
    });
    if (waits) left.push(o);
    return [o.id, ...values];
  });
  await insertRows(connection, quoted(map.table), ['id', ...map.own.map((c) => quoted(c.column))], rows);
  return left;
}

async function insertLists(connection: Writer, kind: ObjectKind, objects: readonly WrittenObject[]): Promise<void> {
  for (const list of tableOf(kind).lists) {
    const rows = objects.flatMap((o) =>
      (field(o.after!, list.field) as string[]).map((target, position) => [o.id, position, target]),
    );
    await insertRows(connection, list.table, ['owner', 'position', 'target'], rows);
  }
}

/** Sets columns of rows that were inserted in this transaction. */
async function fillIn(
  connection: Writer,
  kind: ObjectKind,
  columns: readonly Column[],
  objects: readonly WrittenObject[],
): Promise<void> {
  if (columns.length === 0) return;
  await updateJoined(
    connection,
    quoted(tableOf(kind).table),
    columns.map((c) => c.column),
    objects.map((o) => [o.id, ...columns.map((c) => toSql(c, o.after!))]),
    '',
  );
}

/**
 * Changes rows by joining them to a list of values: id first, then one value a column. `more` is what else is set or asked
 * of the row, after the columns.
 */
function updateJoined(
  connection: Writer,
  table: string,
  columns: readonly string[],
  rows: readonly (readonly SqlValue[])[],
  more: string,
  guard?: 'row_version',
): Promise<number> {
  const names = ['id', ...columns.map((_, i) => `v${i}`), ...(guard ? ['guard'] : [])];
  const first = `SELECT ${names.map((n) => `? AS ${n}`).join()}`;
  const next = `SELECT ${names.map(() => '?').join()}`;
  const sets = columns.map((c, i) => `t.${quoted(c)} = v.v${i}`);
  return changeMany(
    connection,
    rows,
    (n) =>
      `UPDATE (${[first, ...Array.from({ length: n - 1 }, () => next)].join(' UNION ALL ')}) v
       STRAIGHT_JOIN ${table} t ON t.id = CONVERT(v.id USING ascii) COLLATE ascii_bin
       SET ${[...sets, more].filter(Boolean).join()} ${guard ? `WHERE t.${guard} = v.guard` : ''}`,
  );
}

/** Changes objects that exist: the columns in which any of them differs. False when a row has another version by now. */
async function changeAll(
  connection: Writer,
  kind: ObjectKind,
  objects: readonly WrittenObject[],
  spaceOf: (object: AnyObject) => string,
): Promise<boolean> {
  if (objects.length === 0) return true;
  const map = tableOf(kind);
  const differs = (name: string) =>
    objects.some((o) => JSON.stringify(field(o.before!, name)) !== JSON.stringify(field(o.after!, name)));
  const columns = map.own.filter((c) => differs(c.field));
  const touched = await updateJoined(
    connection,
    quoted(map.table),
    columns.map((c) => c.column),
    objects.map((o) => [o.id, ...columns.map((c) => toSql(c, o.after!)), o.rowVersion]),
    't.row_version = t.row_version + 1',
    'row_version',
  );
  if (touched !== objects.length) return false;
  if (map.destination && map.shared.some((c) => differs(c.field))) {
    const shared = map.shared.map((c) => c.column);
    await updateJoined(
      connection,
      'destination',
      ['space', ...shared],
      objects.map((o) => [o.id, spaceOf(o.after!), ...map.shared.map((c) => toSql(c, o.after!))]),
      '',
    );
  }
  for (const list of map.lists) {
    if (!differs(list.field)) continue;
    await clearLists(connection, list.table, objects);
    const rows = objects.flatMap((o) =>
      (field(o.after!, list.field) as string[]).map((target, position) => [o.id, position, target]),
    );
    await insertRows(connection, list.table, ['owner', 'position', 'target'], rows);
  }
  return true;
}

const clearLists = (connection: Writer, table: string, objects: readonly WrittenObject[]) =>
  changeMany(
    connection,
    objects.map((o) => [o.id]),
    (n) => `DELETE FROM ${table} WHERE owner IN (${times(n, '?')})`,
  );

/** Lets go of what objects refer to, so that objects that refer to each other can be deleted together. */
async function letGo(connection: Writer, kind: ObjectKind, objects: readonly WrittenObject[]): Promise<void> {
  if (objects.length === 0) return;
  const map = tableOf(kind);
  const loose = map.own.filter((c) => c.looseRef);
  if (loose.length > 0)
    await changeMany(
      connection,
      objects.map((o) => [o.id]),
      (n) =>
        `UPDATE ${quoted(map.table)} SET ${loose.map((c) => `${quoted(c.column)} = NULL`).join()} WHERE id IN (${times(n, '?')})`,
    );
  for (const list of map.lists) await clearLists(connection, list.table, objects);
}

/** Deletes rows; false when one has another version by now. */
async function deleteAll(connection: Writer, kind: ObjectKind, objects: readonly WrittenObject[]): Promise<boolean> {
  const map = tableOf(kind);
  const touched = await changeMany(
    connection,
    objects.map((o) => [o.id, o.rowVersion]),
    (n) => `DELETE FROM ${quoted(map.table)} WHERE (id, row_version) IN (${times(n, placeholders(2))})`,
  );
  if (touched !== objects.length) return false;
  if (map.destination)
    await changeMany(
      connection,
      objects.map((o) => [o.id]),
      (n) => `DELETE FROM destination WHERE id IN (${times(n, '?')})`,
    );
  return true;
}

/** Writes the organisation's row; `rowVersion` null makes it. False when stale. */
export async function writeOrganisation(
  connection: Writer,
  value: Plan['organisation'],
  rowVersion: number | null,
): Promise<boolean> {
  const object = value as unknown as AnyObject;
  const values = ORGANISATION.map((c) => toSql(c, object));
  if (rowVersion === null) {
    await change(
      connection,
      `INSERT INTO organisation (id, ${ORGANISATION.map((c) => quoted(c.column)).join()}) VALUES ('organisation', ${ORGANISATION.map(() => '?').join()})`,
      values,
    );
    return true;
  }
  const sets = ORGANISATION.map((c) => `${quoted(c.column)} = ?`).join();
  return (
    (await change(connection, `UPDATE organisation SET ${sets}, row_version = row_version + 1 WHERE row_version = ?`, [
      ...values,
      rowVersion,
    ])) > 0
  );
}

/** Sets the number space of every destination anew after the organisation changed its mind. */
export async function rewriteSpaces(
  connection: Writer,
  numberSpace: Plan['organisation']['numberSpace'],
): Promise<void> {
  await change(
    connection,
    numberSpace === 'organisation'
      ? "UPDATE destination SET space = 'organisation'"
      : 'UPDATE destination SET space = site',
  );
}
