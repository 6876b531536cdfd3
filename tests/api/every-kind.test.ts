import { beforeAll, describe, expect, it } from '@jest/globals';
import { OBJECT_KINDS, KINDS, type ObjectKind } from '@/core/plan';
import { Client, admin, objectIn, rowVersion } from '../support/api';
import { addEnds } from '../support/ends-plan';
import { smallDocument } from '../support/small-plan';

/* Every kind of object goes through the API and its tables and comes back as it was. */

let boss: Client;
beforeAll(async () => {
  boss = await admin();
});

const snake = (kind: string) => kind.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`);

/** Kinds the demo company has already; the others are taken from the small company and moved to its sites. */
const KNOWN = new Set<ObjectKind>([
  'class',
  'ladder',
  'site',
  'trunk',
  'person',
  'mailbox',
  'extension',
  'number',
  'rung',
  'inboundRoute',
  'numberAddition',
]);
const MOVED: Record<string, string> = { quay: 'north-quay', pier: 'tidewren', kaj: 'vastra-kajen' };

function objects(phones: string[], box: string, people: string[], classId: string, route: string) {
  const document = smallDocument() as ReturnType<typeof smallDocument> & Record<string, unknown>;
  addEnds(document);
  const ids: Record<string, string> = {
    ...MOVED,
    fax: 'fax-machine',
    staff: classId,
    box,
    'ann-box': box,
    'r-hours': route,
    'x-joan': phones[3]!,
    e1: phones[0]!,
    e2: phones[1]!,
    e3: phones[2]!,
    e4: phones[4]!,
  };
  const text = JSON.stringify(document, (key, value: unknown) => {
    if (key === 'digits' && typeof value === 'string')
      return value.startsWith('*') ? `*99${value.slice(1)}` : `8${value}`;
    return typeof value === 'string' && key !== 'name' ? (ids[value] ?? value) : value;
  });
  const moved = JSON.parse(text) as Record<string, { id: string }[]>;
  moved.sitePairs = [{ id: 'pair', siteA: 'north-quay', siteB: 'tidewren', codec: 'G.729' } as never];
  moved.shortNumbers = [{ id: 'short', country: 'GB', map: '14x{2}', name: 'trial' } as never];
  moved.presenceChoices = [
    { id: 'own', extension: phones[0], rule: 'p-meeting', internal: 'busy', outside: 'forward', outsideTo: phones[1] },
  ] as never;
  moved.teams![0] = { id: 'sales', name: 'Sales', note: `with ${people.length} people` } as never;
  moved.promises = [
    {
      id: 'kept',
      name: 'Kept',
      firm: true,
      fromSites: ['north-quay'],
      fromPhones: [phones[0]],
      dialKinds: ['internal', 'mobile'],
      dialMap: '21xx',
      when: 'when open',
      hours: 'office',
      weekly: 'mon-fri 8-17',
      must: 'ends only at',
      ends: ['a phone', 'a mailbox'],
      places: ['menu'],
      seconds: 12,
      trunksDown: true,
    } as never,
  ];
  return OBJECT_KINDS.filter((k) => !KNOWN.has(k)).flatMap((kind) =>
    moved[KINDS[kind].list]!.map((value) => ({ kind, id: value.id, rowVersion: null, value })),
  );
}

describe('every kind of object', () => {
  it('is written to its tables and read back as the schema has it, then changed and deleted', async () => {
    const plan = (await boss.get<Record<string, { id: string; kind?: string; site?: string }[]>>('/plan')).body;
    const phones = plan
      .extensions!.filter((e) => e.kind === 'person')
      .slice(0, 6)
      .map((e) => e.id);
    const edits = objects(
      phones,
      plan.mailboxes![0]!.id,
      plan.people!.map((p) => p.id),
      plan.classes![0]!.id,
      plan.inboundRoutes![0]!.id,
    );
    expect(new Set(edits.map((e) => e.kind)).size).toBe(OBJECT_KINDS.length - KNOWN.size);
    const made = await boss.post('/edits', { edits });
    expect([made.status, made.body.errors ?? made.body.error]).toEqual([200, undefined]);
    for (const { kind, id, value } of edits) {
      const parsed: unknown = JSON.parse(JSON.stringify(KINDS[kind].schema.parse(value)));
      expect([kind, await objectIn(boss, 'draft', KINDS[kind].list, id)]).toEqual([kind, parsed]);
    }

    const note = await boss.post('/edits', {
      edits: [
        {
          kind: 'queue',
          id: 'line',
          rowVersion: await rowVersion('queue', 'line'),
          value: { ...(await objectIn(boss, 'draft', 'queues', 'line')), wrapUpSeconds: 45, agents: [] },
        },
      ],
    });
    expect(note.status).toBe(200);
    expect(await objectIn(boss, 'draft', 'queues', 'line')).toMatchObject({ wrapUpSeconds: 45, agents: [] });

    const taken = await boss.post('/edits', {
      edits: [
        {
          kind: 'conference',
          id: 'again',
          rowVersion: null,
          value: { id: 'again', name: 'Again', site: 'north-quay', digits: '*9921' },
        },
      ],
    });
    expect(taken.status).toBeGreaterThanOrEqual(400);
    const twice = await boss.post('/edits', {
      edits: [
        {
          kind: 'conference',
          id: 'again',
          rowVersion: null,
          value: { id: 'again', name: 'Again', site: 'north-quay', digits: '85080' },
        },
      ],
    });
    expect(twice.status).toBeGreaterThanOrEqual(400);
    expect(JSON.stringify(twice.body)).toContain('85080');
    const used = await boss.post('/edits', {
      edits: [{ kind: 'hours', id: 'office', rowVersion: await rowVersion('hours', 'office'), value: null }],
    });
    expect(used.status).toBeGreaterThanOrEqual(400);

    const asked = await boss.get<{ lands: { id: string } }>('/trace?from=2101&dial=85030&at=2026-12-04T10:00');
    expect(asked.body.lands?.id).toBe('menu');

    const gone = [];
    for (const { kind, id } of [...edits].reverse())
      gone.push({ kind, id, rowVersion: await rowVersion(snake(kind), id), value: null });
    const deleted = await boss.post('/edits', { edits: gone });
    expect([deleted.status, deleted.body.errors ?? deleted.body.error]).toEqual([200, undefined]);
    expect(await objectIn(boss, 'draft', 'queues', 'line')).toBeUndefined();
  });
});
