import { factsOf, fieldsOf } from './introspect';
import { organisation } from './objects/organisation';
import { inputErrors, type InputError } from './problem';
import type { Plan } from './plan';
import { KINDS, type AnyObject, type DraftKind } from './registry';

/** The title of a field for people; undefined where there is no such field. */
export function titleOf(kind: DraftKind, field: string): string | undefined {
  if (kind !== 'organisation') return fieldsOf(kind).find((f) => f.field === field)?.title;
  const schema = (organisation.shape as Record<string, Parameters<typeof factsOf>[0]>)[field];
  return schema && factsOf(schema).title;
}

/** Reads one object by its schema; errors stand below `base` and call fields by their titles. */
export function readObject(
  kind: DraftKind,
  value: unknown,
  base: string,
): { ok: true; value: AnyObject | Plan['organisation'] } | { ok: false; errors: InputError[] } {
  const result = (kind === 'organisation' ? organisation : KINDS[kind].schema).safeParse(value);
  return result.success
    ? { ok: true, value: result.data as AnyObject | Plan['organisation'] }
    : { ok: false, errors: inputErrors(result.error, base, (path) => titleOf(kind, String(path[0] ?? ''))) };
}
