import {
  OBJECT_KINDS,
  factsOf,
  fieldsOf,
  planSchema,
  type AnyObject,
  type FieldFacts,
  type ObjectKind,
} from '@/core/plan';
import { DIALLED_KINDS } from '@/core/destinations';
import { type Row, type SqlValue } from './pool';

/**
 * The mapper between objects of the plan and their tables, derived from the plan's schema: a field is a column of its
 * name in snake case; a list of references is a table of its own (owner, position, target); other lists and records are
 * JSON. Destinations keep name, site and digits in the shared table `destination`.
 */
export interface TableMap {
  table: string;
  destination: boolean;
  own: Column[];
  shared: Column[];
  lists: { field: string; table: string }[];
}

export interface Column {
  field: string;
  column: string;
  json: boolean;
  boolean: boolean;
  /** a reference that may be empty: left out while objects that refer to each other are written */
  looseRef: boolean;
}

/** In an order in which required references point backwards; deletes go the other way. */
export const WRITE_ORDER: readonly ObjectKind[] = OBJECT_KINDS;

const SHARED_FIELDS = new Set(['name', 'site', 'digits']);
/** Fields whose column is named otherwise, since the table has a column of that name already. */
const COLUMN_NAMES: Record<string, string> = { 'extension.kind': 'extension_kind' };

const snake = (field: string) => field.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`);
export const quoted = (column: string) => `\`${column}\``;

const maps = new Map<ObjectKind, TableMap>();

export function tableOf(kind: ObjectKind): TableMap {
  let map = maps.get(kind);
  if (!map) {
    const destination = (DIALLED_KINDS as readonly string[]).includes(kind);
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

export function toSql(column: Column, object: AnyObject): SqlValue {
  const value = (object as unknown as Record<string, unknown>)[column.field];
  if (value === null || value === undefined) return null;
  return column.json ? JSON.stringify(value) : (value as SqlValue);
}

export function fromSql(column: Column, row: Row): unknown {
  const value = row[column.column] as unknown;
  if (value === null) return null;
  if (column.json) return typeof value === 'string' ? JSON.parse(value) : value;
  return column.boolean ? value === 1 : value;
}

export const ORGANISATION: Column[] = Object.entries(planSchema.shape.organisation.shape).map(([field, schema]) => ({
  field,
  column: snake(field),
  json: false,
  boolean: factsOf(schema).type === 'boolean',
  looseRef: false,
}));
