import { describe, expect, it, jest } from '@jest/globals';
import { stringify } from 'yaml';
import {
  MOST_ERRORS,
  KINDS,
  OBJECT_KINDS,
  PLAN_VERSION,
  planJsonSchema,
  planText,
  readDocumentText,
  readPlan,
  upgradeDocument,
} from '.';
import { endsPlan } from '../../../tests/support/ends-plan';
import { generate } from '../../../demo/generate';

jest.setTimeout(120_000);
const head = { format: 'polydrome-plan', version: PLAN_VERSION, organisation: { name: 'X' } };

describe('the plan document', () => {
  it('reads an older version and writes the newest; a newer one is refused', () => {
    const old = { ...head, version: 1 };
    const upgraded = upgradeDocument(old);
    expect(upgraded).toMatchObject({ ok: true, from: 1, document: { version: PLAN_VERSION } });
    expect(old.version).toBe(1);
    const read = readPlan(old);
    expect(read.ok && read.plan.version).toBe(PLAN_VERSION);
    for (const [version, sentence] of [
      [PLAN_VERSION + 1, 'A newer one is needed'],
      [0, 'whole number'],
      ['2', 'whole number'],
      [undefined, 'whole number'],
    ] as const) {
      const refused = readPlan({ ...head, version });
      expect(refused.ok ? '' : refused.errors[0]!.path).toBe('version');
      expect(refused.ok ? '' : refused.errors[0]!.sentence).toContain(sentence);
    }
    for (const nonsense of [null, 5, 'x', [], { format: 'other' }]) expect(readPlan(nonsense).ok).toBe(false);
  });

  it('is the same bytes as JSON and as YAML, whatever the order', () => {
    const plan = endsPlan();
    const text = planText(plan);
    for (const form of [text, planText(plan, 2), stringify(JSON.parse(text))]) {
      const document = readDocumentText(form);
      const read = readPlan(document.ok && document.document);
      expect(read.ok && planText(read.plan)).toBe(text);
    }
  });

  it('is described by a JSON Schema with every list and field, titles and notes', () => {
    const schema = planJsonSchema() as {
      properties: Record<string, { items?: { properties: Record<string, unknown> } }>;
    };
    for (const kind of OBJECT_KINDS) {
      const fields = schema.properties[KINDS[kind].list]!.items!.properties;
      expect(fields.id).toBeDefined();
      for (const [field, facts] of Object.entries(fields))
        expect([kind, field, JSON.stringify(facts).includes('"title"')]).toEqual([kind, field, true]);
    }
  });

  it('says where keys are unknown, digits and keys stand twice, pairs are told twice and maps are entangled', () => {
    const errors = (change: (d: Record<string, unknown>) => void) => {
      const document = JSON.parse(planText(endsPlan())) as Record<string, unknown>;
      change(document);
      const read = readPlan(document);
      return read.ok ? [] : read.errors.map((e) => `${e.code} ${e.path}`);
    };
    const list = (d: Record<string, unknown>, name: string) => d[name] as Record<string, unknown>[];
    expect(errors((d) => (d.quues = []))).toEqual(['unrecognized_keys ']);
    expect(errors((d) => (list(d, 'queues')[0]!.rank = 1))).toEqual(['unrecognized_keys queues.0']);
    expect(errors((d) => (list(d, 'conferences')[0]!.digits = '2101')).sort()).toEqual([
      'digits-twice conferences.0.digits',
      'digits-twice extensions.0.digits',
    ]);
    expect(errors((d) => (list(d, 'serviceCodes')[0]!.digits = '*21'))).toHaveLength(2);
    expect(
      errors((d) => list(d, 'attendantKeys').push({ ...list(d, 'attendantKeys')[0], id: 'one-more' })).map(
        (e) => e.split(' ')[0],
      ),
    ).toEqual(['key-twice', 'key-twice']);
    expect(
      errors(
        (d) =>
          (d.sitePairs = [
            { id: 'a', siteA: 'quay', siteB: 'pier' },
            { id: 'b', siteA: 'pier', siteB: 'quay' },
          ]),
      ),
    ).toEqual(['pair-twice sitePairs.0.siteB', 'pair-twice sitePairs.1.siteB']);
    expect(
      errors((d) => {
        for (const [i, rung] of list(d, 'rungs').entries()) rung.map = `x.${i}x{${5 + i}}`;
      }),
    ).toEqual([expect.stringMatching(/^maps-entangled rungs\.\d+\.map$/)]);
    expect(errors((d) => (list(d, 'inboundRoutes')[0]!.callingMap = 'x.1x{20}'))).toEqual([
      'map-entangled inboundRoutes.0.callingMap',
    ]);
    expect(errors((d) => (list(d, 'hours')[0]!.weekly = 'mon 9-9'))).toEqual(['invalid hours.0.weekly']);
    expect(errors((d) => (list(d, 'hours')[0]!.zone = 'Harbour/Time'))).toHaveLength(1);
    expect(errors((d) => (list(d, 'serviceCodes').find((f) => f.id === 'f-in')!.queue = null))).toHaveLength(1);
    expect(errors((d) => (list(d, 'queues')[0]!.full = 'hello'))).toEqual(['wrong-kind queues.0.full']);
  });
});

describe('hostile documents are refused in bounded time and memory', () => {
  const deep = (n: number) => `${'['.repeat(n)}${']'.repeat(n)}`;
  it.each([
    [
      '50 MB of zeros in a list',
      () =>
        `{"format":"polydrome-plan","version":3,"organisation":{"name":"X"},"people":[${'0,'.repeat(25_000_000)}0]}`,
    ],
    ['50 MB of open brackets', () => `{"a":${'['.repeat(50_000_000)}`],
    ['nesting in YAML', () => `a: ${deep(5000)}`],
    ['dashes in YAML', () => `${'- '.repeat(100_000)}x`],
    [
      'YAML aliases that multiply',
      () => 'a: &a [x,x,x,x,x,x,x,x,x]\nb: &b [*a,*a,*a,*a,*a,*a,*a,*a,*a]\nc: &c [*b,*b,*b,*b,*b,*b,*b,*b,*b]\n',
    ],
    ['50 MB of YAML', () => 'a: 1\n'.repeat(10_000_000)],
    [
      'a name of 50 MB',
      () => `{"format":"polydrome-plan","version":3,"organisation":{"name":"${'x'.repeat(50_000_000)}"}}`,
    ],
    [
      '200,000 objects of nonsense',
      () =>
        JSON.stringify({ ...head, extensions: Array.from({ length: 200_000 }, (_, i) => ({ id: i, nonsense: true })) }),
    ],
    [
      'a million unknown keys',
      () =>
        `{${Array.from({ length: 1_000_000 }, (_, i) => `"k${i}":1`).join()},"format":"polydrome-plan","version":3}`,
    ],
    ['binary', () => '\u0000\u0001\u0002'.repeat(1000)],
  ])('%s', (_, make) => {
    const text = make();
    const read = readDocumentText(text);
    if (!read.ok) {
      expect(read.sentence.length).toBeLessThan(400);
      return;
    }
    const plan = readPlan(read.document);
    expect(plan.ok).toBe(false);
    if (plan.ok) return;
    expect(plan.errors.length).toBeLessThanOrEqual(MOST_ERRORS);
    expect(plan.errors.every((e) => e.sentence.length < 1000)).toBe(true);
  });

  it('the reference plan is read whole', () => {
    const document = generate({ extensions: 3000 });
    const read = readPlan(document);
    expect(read.ok && read.plan.extensions.length).toBe(3000);
    expect(JSON.stringify(generate({ extensions: 50 }))).toBe(JSON.stringify(generate({ extensions: 50 })));
  });
});
