import { beforeAll, describe, expect, it, jest } from '@jest/globals';
import Ajv2020, { type ValidateFunction } from 'ajv/dist/2020';
import fc from 'fast-check';
import { Client, admin, auditor, helpdesk } from '../support/api';
import { named, toldBy, type Told } from '../support/document';
import { brokenFrom, instanceOf } from '../support/instance';

/*
 * The application held against its own document by a reader of JSON Schema that is not ours: what it answers is what the
 * document says, and what the document refuses is refused.
 */

jest.setTimeout(180_000);

interface Known extends Told {
  holds: ValidateFunction | null;
  takes: ValidateFunction | null;
}

const ajv = new Ajv2020({ strict: false, validateFormats: false, validateSchema: true });

let all: Known[];
let errors: ValidateFunction;
let boss: Client;
let others: Client[];
beforeAll(async () => {
  [boss, ...others] = [await admin(), await helpdesk(), await auditor(), Client.anonymous()];
  const told = await toldBy(boss);
  errors = ajv.compile(told.errors);
  all = told.all.map((o) => ({ ...o, holds: o.answer && ajv.compile(o.answer), takes: o.body && ajv.compile(o.body) }));
});

const said = (check: ValidateFunction) => JSON.stringify(check.errors?.slice(0, 2));

describe('the OpenAPI document', () => {
  it('is made of schemas that another reader takes, and names every part of every path once', () => {
    expect(all.length).toBeGreaterThan(70);
    for (const { path, operation } of all) {
      const parts = [...path.matchAll(/\{(\w+)\}/g)].map((m) => m[1]);
      expect(operation.parameters.filter((p) => p.in === 'path').map((p) => p.name)).toEqual(parts);
    }
    expect(new Set(all.map((o) => o.name)).size).toBe(all.length);
  });

  it('tells what every reading operation answers, to each who may ask and to each who may not', async () => {
    const seen = new Map<string, number>();
    const reading = all.filter((o) => o.method === 'GET' && o.name !== 'jobEvents');
    for (const client of [boss, ...others])
      for (const { name, path, operation, holds } of reading) {
        const query = operation.parameters
          .filter((p) => p.in === 'query' && p.required)
          .map((p) => `${p.name}=${encodeURIComponent(String(instanceOf(p.schema)))}`);
        const got = await client.get(`${named(path)}?${query.join('&')}`);
        const check = got.status === 200 ? holds : errors;
        if (check && !check(got.body)) throw new Error(`${name} (${got.status}): ${said(check)}`);
        if (got.status === 200) seen.set(name, (seen.get(name) ?? 0) + 1);
      }
    // Were everything refused, nothing would have been looked at.
    expect(seen.size).toBeGreaterThan(18);
  });

  it('tells which bodies are refused: none that it refuses is taken, and each refusal says where', async () => {
    const writing = all.filter((o) => o.body !== null && !/session/.test(o.path));
    expect(writing.length).toBeGreaterThan(25);
    const before = (await boss.get<{ draftVersion: number }>('/health')).body.draftVersion;
    for (const { name, method, path, body, takes } of writing)
      await fc.assert(
        fc.asyncProperty(brokenFrom(instanceOf(body!)), async (broken) => {
          // What a body is after its way through JSON: half a surrogate and the like are other signs then.
          const sent = JSON.parse(JSON.stringify(broken)) as unknown;
          if (takes!(sent)) return;
          const got = await boss.send(method, named(path), sent);
          if (got.status < 400 || got.status >= 500)
            throw new Error(`${name} answers ${got.status} to ${JSON.stringify(sent).slice(0, 200)}: ${said(takes!)}`);
          if (!errors(got.body)) throw new Error(`${name}: ${said(errors)}`);
        }),
        { numRuns: 25 },
      );
    expect((await boss.get<{ draftVersion: number }>('/health')).body.draftVersion).toBe(before);
  });

  it('tells which queries are refused', async () => {
    // What people ask on the page of their own is refused to administrators before it is read, and so are recordings.
    const refused = (path: string) => path.startsWith('/own/') || path.endsWith('/recording');
    const asking = all.filter(
      (o) => o.method === 'GET' && !refused(o.path) && o.operation.parameters.some((p) => p.in === 'query'),
    );
    expect(asking.length).toBeGreaterThan(6);
    for (const { name, path, operation } of asking) {
      const surplus = await boss.get(`${named(path)}?no-such-thing=1`);
      expect([name, surplus.status]).toEqual([name, 400]);
      expect(surplus.body.errors!.map((e) => e.sentence).join()).toMatch(/no-such-thing/);
      for (const p of operation.parameters.filter((q) => q.in === 'query' && q.schema.type === 'integer'))
        for (const bad of ['x', '-1', '1.5', '1e400'])
          expect([name, p.name, bad, (await boss.get(`${named(path)}?${p.name}=${bad}`)).status]).toEqual([
            name,
            p.name,
            bad,
            400,
          ]);
    }
  });
});
