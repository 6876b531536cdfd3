import { z } from 'zod';
import type { FieldMeta } from './facts/fields';
import { KINDS, type ObjectKind, type RefTarget } from './registry';

/** What the schema knows of one field. */
export interface FieldFacts extends Omit<FieldMeta, 'ref'> {
  field: string;
  ref?: RefTarget;
  /** true when it holds a list of references or values */
  many: boolean;
  nullable: boolean;
  /** how a value of it is kept: plain text or number, yes or no, or a structure */
  type: 'text' | 'number' | 'boolean' | 'json';
  /** the words a field chooses from, where it does */
  choices: readonly string[] | null;
}

const cache = new Map<ObjectKind, FieldFacts[]>();

/** The fields of a kind of object in schema order, with titles, notes and what they refer to. */
export function fieldsOf(kind: ObjectKind): FieldFacts[] {
  let facts = cache.get(kind);
  if (!facts) {
    const shape = KINDS[kind].schema.shape as Record<string, z.ZodType>;
    facts = Object.entries(shape).map(([field, schema]) => ({ field, ...factsOf(schema) }));
    cache.set(kind, facts);
  }
  return facts;
}

/** The fields of a kind that refer to other objects. */
export function referenceFieldsOf(kind: ObjectKind): (FieldFacts & { ref: RefTarget })[] {
  return fieldsOf(kind).filter((f): f is FieldFacts & { ref: RefTarget } => f.ref !== undefined);
}

/** Whether an object of `kind` is what a reference to `target` may point to. */
export function fitsTarget(target: RefTarget, kind: ObjectKind): boolean {
  return target === 'destination' ? KINDS[kind].called === true : target === kind;
}

/** What one field's schema says of it. */
export function factsOf(schema: z.ZodType): Omit<FieldFacts, 'field'> {
  let meta: FieldMeta = {};
  let nullable = false;
  let inner: z.ZodType = schema;
  for (;;) {
    meta = { ...inner.meta(), ...meta };
    if (inner instanceof z.ZodNullable) nullable = true;
    else if (!(inner instanceof z.ZodDefault))
      return {
        ...(meta as Omit<FieldFacts, 'field'>),
        nullable,
        many: inner instanceof z.ZodArray,
        type: typeOf(inner),
        choices: inner instanceof z.ZodEnum ? inner.options.map(String) : null,
      };
    inner = inner.unwrap() as z.ZodType;
  }
}

function typeOf(schema: z.ZodType): FieldFacts['type'] {
  if (schema instanceof z.ZodBoolean) return 'boolean';
  if (schema instanceof z.ZodNumber) return 'number';
  return schema instanceof z.ZodString || schema instanceof z.ZodEnum || schema instanceof z.ZodEmail ? 'text' : 'json';
}

/** The title that a schema gives to what stands at a path within it; undefined where it gives none. */
export function titleAt(schema: z.ZodType, path: readonly PropertyKey[]): string | undefined {
  let inner: z.ZodType = schema;
  let title: string | undefined;
  for (const step of ['', ...path]) {
    if (step !== '') {
      if (inner instanceof z.ZodObject) inner = (inner.shape as Record<PropertyKey, z.ZodType>)[step] ?? z.unknown();
      else if (inner instanceof z.ZodArray) inner = inner.element as z.ZodType;
      else return title;
    }
    for (;;) {
      title = (inner.meta() as FieldMeta | undefined)?.title ?? title;
      if (!(inner instanceof z.ZodNullable || inner instanceof z.ZodDefault || inner instanceof z.ZodOptional)) break;
      inner = inner.unwrap() as z.ZodType;
    }
  }
  return title;
}

/** The fields of a kind that hold digit maps. */
export const mapFieldsOf = (kind: ObjectKind): FieldFacts[] => fieldsOf(kind).filter((f) => f.map === true);
