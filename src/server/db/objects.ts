import {
  OBJECT_KINDS,
  OBJECTS,
  PLAN_FORMAT,
  PLAN_VERSION,
  fieldsOf,
  numberSpaceOf,
  planSchema,
  type AnyObject,
  type FieldFacts,
  type ObjectKind,
  type Plan,
} from '@/core/plan';
import { DIALABLE_KINDS } from '@/core/destinations';
import { change, rows, type Queryable, type Row, type SqlValue } from './pool';

/**
 * The mapper between objects of the plan and their tables, derived from the plan's schema: a field is a column of its
 * name in snake case; a list of references is a table of its own (owner, position, target); other lists and records are
 * JSON. Destinations keep name, site and digits in the shared table `destination`.
 */
interface TableMap {
  table: string;
  destination: boolean;
  own: Column[];
  shared: Column[];
  lists: { field: string; table: string }[];
}

interface Column {
  field: string;
  column: string;
  json: boolean;
  boolean: boolean;
  /** a reference that may be empty: left out while objects that refer to each other are written */
  looseRef: boolean;
}

export type DraftKind = ObjectKind | 'organisation';

/** In an order in which required references point backwards; deletes go the other way. */
export const WRITE_ORDER: readonly ObjectKind[] = OBJECT_KINDS;

const SHARED_FIELDS = new Set(['name', 'site', 'digits']);
/** Fields whose column is named otherwise, since the table has a column of that name already. */
const COLUMN_NAMES: Record<string, string> = { 'extension.kind': 'extension_kind' };

const snake = (field: string) => field.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`);
const quoted = (column: string) => `\`${column}\``;

const maps = new Map<ObjectKind, TableMap>();

function tableOf(kind: ObjectKind): TableMap {
  let map = maps.get(kind);
  if (!map) {
    const destination = (DIALABLE_KINDS as readonly string[]).includes(kind);
    const table = snake(kind);
    const fields = fieldsOf(kind).filter((f) => f.field !== 'id');
    const lists = fields
      .filter((f) => f.ref && f.many)
      .map((f) => ({ field: f.field, table: `${table}_${snake(f.field)}` }));
    const single = fields.filter((f) => !(f.ref && f.many));
    const columns = (wanted: FieldFacts[]) => wanted.map((f) => columnOf(kind, f));
    map = {
      table,
      destination,
      own: columns(single.filter((f) => !(destination && SHARED_FIELDS.has(f.field)))),
      shared: columns(destination ? single.filter((f) => SHARED_FIELDS.has(f.field)) : []),
      lists,
    };
    maps.set(kind, map);
  }
  return map;
}

function columnOf(kind: ObjectKind, fact: FieldFacts): Column {
  return {
    field: fact.field,
    column: COLUMN_NAMES[`${kind}.${fact.field}`] ?? snake(fact.field),
    json: fact.type === 'json',
    boolean: fact.type === 'boolean',
    looseRef: fact.ref !== undefined && fact.nullable,
  };
}

function toSql(column: Column, object: AnyObject): SqlValue {
  const value = (object as unknown as Record<string, unknown>)[column.field];
  if (value === null || value === undefined) return null;
  return column.json ? JSON.stringify(value) : (value as SqlValue);
}

function fromSql(column: Column, row: Row): unknown {
  const value = row[column.column] as unknown;
  if (value === null) return null;
  if (column.json) return typeof value === 'string' ? JSON.parse(value) : value;
  return column.boolean ? value === 1 : value;
}

/** Inserts an object with its loose references still empty and without its lists. */
export async function insertBare(
  connection: Queryable,
  kind: ObjectKind,
  object: AnyObject,
  space: string,
): Promise<void> {
  const map = tableOf(kind);
  if (map.destination) {
    const columns = ['id', 'kind', 'space', ...map.shared.map((c) => c.column)];
    const values = [object.id, kind, space, ...map.shared.map((c) => toSql(c, object))];
    if (!columns.includes('digits')) {
      columns.push('digits');
      values.push(null);
    }
    await change(
      connection,
      `INSERT INTO destination (${columns.map(quoted).join()}) VALUES (${columns.map(() => '?').join()})`,
      values,
    );
  }
  const columns = ['id', ...map.own.map((c) => c.column)];
  const values = [object.id, ...map.own.map((c) => (c.looseRef ? null : toSql(c, object)))];
  await change(
    connection,
    `INSERT INTO ${quoted(map.table)} (${columns.map(quoted).join()}) VALUES (${columns.map(() => '?').join()})`,
    values,
  );
}

/** Frees the digits of a destination, so that two can change places in one transaction. */
export async function freeDigits(connection: Queryable, id: string): Promise<void> {
  await change(connection, 'UPDATE destination SET digits = NULL WHERE id = ?', [id]);
}

/** Writes every field of an object that exists. `rowVersion` null is an object inserted in this transaction; false: stale. */
export async function updateWhole(
  connection: Queryable,
  kind: ObjectKind,
  object: AnyObject,
  space: string,
  rowVersion: number | null,
): Promise<boolean> {
  const map = tableOf(kind);
  const sets = map.own.map((c) => `${quoted(c.column)} = ?`);
  const step = rowVersion === null ? '' : ', row_version = row_version + 1';
  const values = map.own.map((c) => toSql(c, object));
  const touched = await change(
    connection,
    `UPDATE ${quoted(map.table)} SET ${sets.join()}${step} WHERE id = ?${rowVersion === null ? '' : ' AND row_version = ?'}`,
    [...values, object.id, ...(rowVersion === null ? [] : [rowVersion])],
  );
  if (rowVersion !== null && touched === 0) return false;
  if (map.destination) {
    await change(
      connection,
      `UPDATE destination SET space = ?, ${map.shared.map((c) => `${quoted(c.column)} = ?`).join()} WHERE id = ?`,
      [space, ...map.shared.map((c) => toSql(c, object)), object.id],
    );
  }
  for (const list of map.lists) {
    const targets = (object as unknown as Record<string, string[]>)[list.field]!;
    await change(connection, `DELETE FROM ${list.table} WHERE owner = ?`, [object.id]);
    for (const [position, target] of targets.entries())
      await change(connection, `INSERT INTO ${list.table} (owner, position, target) VALUES (?, ?, ?)`, [
        object.id,
        position,
        target,
      ]);
  }
  return true;
}

/** Lets go of what an object refers to, so that objects that refer to each other can be deleted together. */
export async function letGo(connection: Queryable, kind: ObjectKind, id: string): Promise<void> {
  const map = tableOf(kind);
  const loose = map.own.filter((c) => c.looseRef);
  if (loose.length > 0)
    await change(
      connection,
      `UPDATE ${quoted(map.table)} SET ${loose.map((c) => `${quoted(c.column)} = NULL`).join()} WHERE id = ?`,
      [id],
    );
  for (const list of map.lists) await change(connection, `DELETE FROM ${list.table} WHERE owner = ?`, [id]);
}

/** Deletes an object's rows; false when its row version is another by now. */
export async function deleteRows(
  connection: Queryable,
  kind: ObjectKind,
  id: string,
  rowVersion: number,
): Promise<boolean> {
  const map = tableOf(kind);
  const touched = await change(connection, `DELETE FROM ${quoted(map.table)} WHERE id = ? AND row_version = ?`, [
    id,
    rowVersion,
  ]);
  if (touched === 0) return false;
  if (map.destination) await change(connection, 'DELETE FROM destination WHERE id = ?', [id]);
  return true;
}

const ORGANISATION: Column[] = Object.keys(planSchema.shape.organisation.shape).map((field) => ({
  field,
  column: snake(field),
  json: false,
  boolean: false,
  looseRef: false,
}));

/** Writes the organisation's row; `rowVersion` null makes it. False when stale. */
export async function writeOrganisation(
  connection: Queryable,
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
export async function rewriteSpaces(connection: Queryable, plan: Plan): Promise<void> {
  for (const site of plan.sites)
    await change(connection, 'UPDATE destination SET space = ? WHERE site = ?', [
      numberSpaceOf(plan, site.id),
      site.id,
    ]);
}

export interface LoadedPlan {
  plan: Plan;
  rowVersions: Map<string, number>;
}

/** The whole draft from its tables; null while there is no organisation yet. Call it inside one snapshot or transaction. */
export async function loadPlan(connection: Queryable): Promise<LoadedPlan | null> {
  const [organisationRow] = await rows(connection, 'SELECT * FROM organisation');
  if (!organisationRow) return null;
  const rowVersions = new Map<string, number>([['organisation', organisationRow.row_version as number]]);
  const document: Record<string, unknown> = {
    format: PLAN_FORMAT,
    version: PLAN_VERSION,
    organisation: Object.fromEntries(ORGANISATION.map((c) => [c.field, fromSql(c, organisationRow)])),
  };
  for (const kind of OBJECT_KINDS) {
    const objects = await loadKind(connection, kind, rowVersions);
    document[OBJECTS[kind].list] = objects;
  }
  return { plan: planSchema.parse(document), rowVersions };
}

async function loadKind(connection: Queryable, kind: ObjectKind, rowVersions: Map<string, number>): Promise<unknown[]> {
  const map = tableOf(kind);
  const join = map.destination ? ` JOIN destination d ON d.id = t.id` : '';
  const shared = map.shared.map((c) => `, d.${quoted(c.column)}`).join('');
  const found = await rows(connection, `SELECT t.*${shared} FROM ${quoted(map.table)} t${join} ORDER BY t.id`);
  const lists = new Map<string, Map<string, string[]>>();
  for (const list of map.lists) {
    const byOwner = new Map<string, string[]>();
    for (const r of await rows(connection, `SELECT owner, target FROM ${list.table} ORDER BY owner, position`)) {
      const targets = byOwner.get(r.owner as string) ?? [];
      byOwner.set(r.owner as string, targets);
      targets.push(r.target as string);
    }
    lists.set(list.field, byOwner);
  }
  return found.map((row) => {
    const id = row.id as string;
    rowVersions.set(id, row.row_version as number);
    const object: Record<string, unknown> = { id };
    for (const c of [...map.own, ...map.shared]) object[c.field] = fromSql(c, row);
    for (const [field, byOwner] of lists) object[field] = byOwner.get(id) ?? [];
    return object;
  });
}
