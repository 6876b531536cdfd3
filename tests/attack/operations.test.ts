import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import Ajv2020, { type ValidateFunction } from 'ajv/dist/2020';
import { Attacker, type Attack } from '../support/attacker';
import { Client, admin, database } from '../support/api';
import { ADMIN, AUDITOR, BASE, HELPDESK } from '../support/browser';
import { named, toldBy, type Told } from '../support/document';
import { HOSTILE_BODIES, HOSTILE_HEADERS, HOSTILE_TEXTS } from '../support/hostile';
import { instanceOf } from '../support/instance';

/*
 * Every operation × five kinds of callers × a catalogue of hostile values, in its path, its query, its body and its head:
 * nothing fails on our side, nothing hangs, nothing tells what it should not, and nothing is taken that the document refuses.
 */

jest.setTimeout(400_000);

const ajv = new Ajv2020({ strict: false, validateFormats: false });
type Headers = Record<string, string>;
const CALLERS = ['nobody', 'auditor', 'helpdesk', 'owner', 'token'] as const;
const callers = new Map<(typeof CALLERS)[number], Headers>();
let boss: Client;
let all: Told[];
let takes: Map<string, ValidateFunction>;
let before: string;

async function session([name, password]: readonly [string, string]): Promise<Headers> {
  const response = await fetch(`${BASE}/api/v1/session`, {
    method: 'POST',
    body: JSON.stringify({ name, password }),
    headers: { 'content-type': 'application/json' },
  });
  const cookie = /polydrome_session=[^;]+/.exec(response.headers.get('set-cookie') ?? '')![0];
  return { cookie, 'sec-fetch-site': 'same-origin' };
}

const draft = async () => JSON.stringify((await boss.get('/health')).body);

beforeAll(async () => {
  boss = await admin();
  ({ all } = await toldBy(boss));
  takes = new Map(all.flatMap((o) => (o.body ? [[o.name, ajv.compile(o.body)]] : [])));
  const { body } = await boss.post<{ token: string }>('/tokens', { name: 'hostile', role: 'auditor', days: 1 });
  callers.set('nobody', {});
  callers.set('auditor', await session(AUDITOR));
  callers.set('helpdesk', await session(HELPDESK));
  callers.set('owner', await session(ADMIN));
  callers.set('token', { authorization: `Bearer ${body.token}` });
  before = await draft();
});

/** What ends the caller's own session, or does with no input at all what it is for, is left to its own tests. */
const LEFT_OUT = new Set(['signOut', 'offerSecondFactor', 'endSecondFactor', 'undo']);
const attacked = () => all.filter((o) => !LEFT_OUT.has(o.name));

const query = (params: [string, string][]) =>
  params.length === 0 ? '' : `?${params.map(([k, v]) => `${k}=${encodeURIComponent(v.toWellFormed())}`).join('&')}`;

/** An operation with one hostile text in one place of its address. */
function inAddress(o: Told, text: string): Attack[] {
  const needed = o.operation.parameters
    .filter((p) => p.in === 'query' && p.required)
    .map((p): [string, string] => [p.name, String(instanceOf(p.schema))]);
  return o.operation.parameters.map((p): Attack => {
    const at = { method: o.method, headers: {}, body: o.body ? 'null' : undefined };
    if (p.in === 'path') return { ...at, path: `/api/v1${named(o.path, { [p.name]: text })}${query(needed)}` };
    return {
      ...at,
      path: `/api/v1${named(o.path)}${query([...needed.filter(([k]) => k !== p.name), [p.name, text]])}`,
    };
  });
}

/** Whether a body is one that the document takes. */
function isRight(o: Told, body: string): boolean {
  try {
    return takes.get(o.name)!(body.trim() === '' ? {} : JSON.parse(body)) === true;
  } catch {
    return false;
  }
}

const JSON_BODY = { 'content-type': 'application/json' };

// Tries to sign in were counted for this address; those who come after are not to wait for them.
afterAll(async () => {
  const sql = await database();
  await sql.query('DELETE FROM rate_limit');
  await sql.end();
});

describe('every operation', () => {
  it('answers hostile addresses with a refusal, or with what is there, from whoever asks', async () => {
    const attacker = new Attacker();
    const attacks = attacked()
      // What changes something by its address alone is asked by those who may not.
      .flatMap((o, n) =>
        HOSTILE_TEXTS.flatMap((text, i) => {
          const caller = CALLERS[i % CALLERS.length]!;
          // Each operation gets two texts of four, the next ones others; every second of them from whoever may do everything.
          const askers = [[caller], ['owner' as const], [], []][(i + n) % 4]!;
          return askers.flatMap((who) =>
            o.method === 'GET' || o.body || who !== 'owner' ? inAddress(o, text).map((a) => ({ a, who })) : [],
          );
        }),
      );
    await attacker.all(attacks, ({ a, who }) =>
      attacker.send({ ...a, headers: { ...callers.get(who)!, ...(a.body ? JSON_BODY : {}) } }),
    );
    console.log(`addresses: ${attacker.report()}`);
    expect(attacker.wrong.slice(0, 20)).toEqual([]);
    expect(attacker.sent).toBeGreaterThan(3000);
  });

  it('takes no hostile body, from whoever sends it', async () => {
    const attacker = new Attacker();
    const bodies = attacked().filter((o) => o.body !== null);
    // A body that happens to be right is sent by those only who may change nothing.
    const harmless = (o: Told, who: string, body: string) => who === 'auditor' || !isRight(o, body);
    // Each operation gets every body, from two callers of five; the next one from others.
    const attacks = bodies.flatMap((o, n) =>
      HOSTILE_BODIES.flatMap((body, i) =>
        CALLERS.filter((who, j) => (i + j + n) % 5 < 2 && harmless(o, who, body)).map((who) => ({ o, who, body })),
      ),
    );
    await attacker.all(attacks, ({ o, who, body }) => {
      const headers = { ...callers.get(who)!, ...JSON_BODY };
      return attacker.send({ method: o.method, path: `/api/v1${named(o.path)}`, headers, body }, (got) => {
        return got.status >= 400 || isRight(o, body) ? null : `taken with ${got.status}`;
      });
    });
    console.log(`bodies: ${attacker.report()}`);
    expect(attacker.wrong.slice(0, 20)).toEqual([]);
    expect(attacker.sent).toBeGreaterThan(2000);
  });

  it('takes no hostile text in any place of a body that is right but for it', async () => {
    const attacker = new Attacker();
    // Each field gets every third text, the next one others.
    const attacks = attacked().flatMap((o, n) => {
      const whole = o.body ? instanceOf(o.body) : null;
      if (whole === null || typeof whole !== 'object') return [];
      return Object.keys(whole).flatMap((key, k) =>
        HOSTILE_TEXTS.filter((_, i) => (i + k + n) % 3 === 0).map((text) => ({ o, body: { ...whole, [key]: text } })),
      );
    });
    await attacker.all(attacks, ({ o, body }) => {
      // As an auditor nothing is changed by what happens to be right; as the owner only what can't be is sent.
      const who = takes.get(o.name)!(body) ? 'auditor' : 'owner';
      const headers = { ...callers.get(who)!, ...JSON_BODY };
      const path = `/api/v1${named(o.path)}`;
      return attacker.send({ method: o.method, path, headers, body: JSON.stringify(body) }, (got) =>
        got.status < 400 && who === 'owner' ? `taken with ${got.status}` : null,
      );
    });
    console.log(`places of bodies: ${attacker.report()}`);
    expect(attacker.wrong.slice(0, 20)).toEqual([]);
    expect(attacker.sent).toBeGreaterThan(1200);
  });

  it('is asked with lying heads and answers all the same', async () => {
    const attacker = new Attacker();
    const attacks = attacked().flatMap((o, n) =>
      HOSTILE_HEADERS.filter((_, i) => (i + n) % 2 === 0).map((headers) => ({ o, headers })),
    );
    await attacker.all(attacks, ({ o, headers }) => {
      const body = o.method === 'GET' || o.method === 'DELETE' ? undefined : 'null';
      const all = { ...callers.get('auditor')!, ...(body ? JSON_BODY : {}), ...headers };
      return attacker.send({ method: o.method, path: `/api/v1${named(o.path)}`, headers: all, body });
    });
    console.log(`heads: ${attacker.report()}`);
    expect(attacker.wrong.slice(0, 20)).toEqual([]);
  });

  it('is refused to whoever has no right to it, before anything is read', async () => {
    const attacker = new Attacker();
    const guarded = attacked().filter(
      (o) => !/session|openapi|health|^\/first$|^\/calendars\/|^\/join$|^\/call-pages\//.test(o.path),
    );
    await attacker.all(guarded, (o) => {
      const headers = o.body ? JSON_BODY : {};
      const attack = { method: o.method, path: `/api/v1${named(o.path)}`, headers, body: o.body ? '{"x":' : undefined };
      return attacker.send(attack, ({ status }) => (status === 401 ? null : `answered ${status}`));
    });
    expect(attacker.wrong).toEqual([]);
  });

  it('has left the draft and what is live as they were', async () => {
    expect(await draft()).toBe(before);
  });
});
