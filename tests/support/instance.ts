import fc from 'fast-check';

/* Values by a JSON Schema (2020-12), as far as our document uses it; and values that break it at one place. */

export interface Schema {
  type?: string | string[];
  const?: unknown;
  enum?: unknown[];
  anyOf?: Schema[];
  oneOf?: Schema[];
  allOf?: Schema[];
  properties?: Record<string, Schema>;
  required?: string[];
  additionalProperties?: boolean | Schema;
  propertyNames?: Schema;
  items?: Schema;
  prefixItems?: Schema[];
  minItems?: number;
  minLength?: number;
  minimum?: number;
  maximum?: number;
}

/** A small value that a schema takes, or nearly: patterns and formats are not looked at. */
export function instanceOf(schema: Schema): unknown {
  if ('const' in schema) return schema.const;
  if (schema.enum) return schema.enum[0];
  const choice = schema.anyOf ?? schema.oneOf;
  if (choice) return instanceOf(choice[0]!);
  if (schema.allOf) return Object.assign({}, ...schema.allOf.map(instanceOf));
  const type = Array.isArray(schema.type) ? schema.type[0] : schema.type;
  if (type === 'object' || schema.properties)
    return Object.fromEntries(
      Object.entries(schema.properties ?? {})
        .filter(([key]) => schema.required?.includes(key))
        .map(([key, of]) => [key, instanceOf(of)]),
    );
  if (type === 'array')
    return (
      schema.prefixItems?.map(instanceOf) ??
      Array.from({ length: schema.minItems ?? 0 }, () => instanceOf(schema.items ?? {}))
    );
  if (type === 'string') return 'a'.repeat(Math.max(1, schema.minLength ?? 1));
  if (type === 'integer' || type === 'number') return Math.max(schema.minimum ?? 0, Math.min(schema.maximum ?? 1, 1));
  if (type === 'boolean') return true;
  return null;
}

/** Values of every type that JSON has, the odd ones among them. */
export const ODD: readonly unknown[] = [
  null,
  true,
  0,
  -1,
  1.5,
  1e308,
  Number.MAX_SAFE_INTEGER,
  '',
  ' ',
  'x'.repeat(5000),
  '\u0000',
  '\ud800',
  '__proto__',
  '../../etc/passwd',
  "'; DROP TABLE person; --",
  [],
  [[]],
  {},
  { constructor: { prototype: 1 } },
];

type Path = (string | number)[];

function placesOf(value: unknown, at: Path = []): Path[] {
  if (value === null || typeof value !== 'object') return [at];
  return [at, ...Object.entries(value).flatMap(([key, v]) => placesOf(v, [...at, key]))];
}

function changed(value: unknown, path: Path, to: (old: unknown) => unknown): unknown {
  const [first, ...rest] = path;
  if (first === undefined) return to(value);
  const copy = Array.isArray(value) ? [...value] : { ...(value as object) };
  (copy as Record<string, unknown>)[first] = changed((value as Record<string, unknown>)[first], rest, to);
  return copy;
}

/** A value that is changed at one place: something else stands there, a key is gone, or one is there that nobody knows. */
export function brokenFrom(value: unknown): fc.Arbitrary<unknown> {
  const places = placesOf(value);
  return fc
    .tuple(fc.nat(places.length - 1), fc.constantFrom('other', 'gone', 'surplus'), fc.constantFrom(...ODD))
    .map(([at, how, odd]) =>
      changed(value, places[at]!, (old) => {
        if (how === 'other' || old === null || typeof old !== 'object') return odd;
        if (how === 'surplus') return Array.isArray(old) ? [...old, odd] : { ...old, surplus: odd };
        const keys = Object.keys(old);
        return Array.isArray(old)
          ? old.slice(1)
          : Object.fromEntries(Object.entries(old).filter(([k]) => k !== keys[0]));
      }),
    );
}
