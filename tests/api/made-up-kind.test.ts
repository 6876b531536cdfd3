import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Connection } from 'mysql2/promise';
import type * as Kinds from '@/core/plan/kinds';
import type { Behaviour } from '@/core/destinations';
import { migrate } from '@/server/db/migrate';
import type { Writer } from '@/server/db/pool';
import { endsPlan } from '../support/ends-plan';
import { database } from '../support/api';

/*
 * A kind of object that is made up here: one file of facts, one of behaviour, one table. Everything else that knows of kinds
 * must take it from there: schema, references, checks, rights, search, routing, tables. (Its fourth place, a folder of pages,
 * is what nobody can derive.)
 */

const NAME = 'polydrome_made_up_kind';
const TABLE = `CREATE TABLE doorbell (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'doorbell' CHECK (kind = 'doorbell'),
  note TEXT NOT NULL,
  rings CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  serial VARCHAR(20) NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT doorbell_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind)
)`;

let connection: Connection;
beforeAll(async () => {
  const c = await database();
  await c.query(`CREATE OR REPLACE DATABASE ${NAME} CHARACTER SET utf8mb4 COLLATE utf8mb4_uca1400_as_ci`);
  await c.end();
  await migrate(
    { ...(JSON.parse(process.env.POLYDROME_MIGRATE!) as object), database: NAME },
    'src/server/db/migrations',
  );
  connection = await database(NAME);
  await connection.query(TABLE);
});
afterAll(async () => {
  await connection.query(`DROP DATABASE ${NAME}`);
  await connection.end();
});

/** The program with one kind more. */
function withDoorbells() {
  jest.resetModules();
  jest.doMock('@/core/plan/kinds', () => {
    const actual = jest.requireActual<typeof Kinds>('@/core/plan/kinds');
    const { z } = jest.requireActual<typeof import('zod')>('zod');
    const { reachable } = jest.requireActual<typeof import('@/core/plan/objects/reachable')>(
      '@/core/plan/objects/reachable',
    );
    const { ref } = jest.requireActual<typeof import('@/core/plan/facts/fields')>('@/core/plan/facts/fields');
    const { kind } = jest.requireActual<typeof import('@/core/plan/facts/kind')>('@/core/plan/facts/kind');
    const doorbell = z.strictObject({
      ...reachable,
      rings: ref('ringGroup', { title: 'Rings', description: 'Who hears it. Example: Front desk.' }),
      serial: z.string().min(1).max(20).meta({ title: 'Serial number', description: 'On its back. Example: DB-17.' }),
    });
    const doorbellKind = kind(doorbell, {
      word: 'doorbell',
      words: 'doorbells',
      list: 'doorbells',
      area: 'incoming',
      look: 'speech',
      path: '/doorbells/{id}',
      called: true,
      dialled: true,
      unique: [
        {
          code: 'serial-twice',
          field: 'serial',
          key: (o) => o.serial,
          sentence: (o, other) => `${o.serial} is already ${other.name}.`,
        },
      ],
    });
    return { ...actual, DEFINED: { ...actual.DEFINED, doorbell: doorbellKind } };
  });
  const plan = jest.requireActual<typeof import('@/core/plan')>('@/core/plan');
  const routing = jest.requireActual<typeof import('@/core/routing')>('@/core/routing');
  const destinations = jest.requireActual<typeof import('@/core/destinations')>('@/core/destinations');
  const behaviour: Behaviour<{ name: string; rings: string }> = {
    offer: (object) => ({
      landing: null,
      code: 'leads-on' as never,
      sentence: `${object.name} rings.`,
      way: {
        when: 'rung',
        afterSeconds: 0,
        to: { type: 'destination', id: object.rings },
        code: 'leads-on' as never,
        sentence: `${object.name} rings.`,
      },
    }),
    lands: () => false,
    ways: (object) => [{ when: 'rung', drive: 'none', to: { type: 'destination', id: object.rings } }],
  };
  Object.assign(destinations.BEHAVIOURS, { doorbell: behaviour });
  return { plan, routing };
}

const bell = { id: 'bell', name: 'Back door', site: 'quay', digits: '5999', rings: 'desk', serial: 'DB-17', note: '' };

function documentWith(...doorbells: object[]): Record<string, unknown> {
  return { ...(JSON.parse(JSON.stringify(endsPlan())) as object), doorbells };
}

describe('a made-up kind of object', () => {
  it('is read, referred to, checked, found by its words and described, from its facts alone', () => {
    const { plan } = withDoorbells();
    const codes = (...doorbells: object[]) => {
      const read = plan.readPlan(documentWith(...doorbells));
      return read.ok ? [] : read.errors.map((e) => `${e.code} ${e.path}`);
    };
    expect(codes(bell)).toEqual([]);
    expect(codes({ ...bell, rings: 'nowhere' })).toEqual(['no-such-object doorbells.0.rings']);
    expect(codes({ ...bell, rings: 'menu' })).toEqual(['wrong-kind doorbells.0.rings']);
    expect(codes({ ...bell, digits: '2101' }).sort()).toEqual([
      'digits-twice doorbells.0.digits',
      expect.stringMatching(/digits-twice extensions\.\d+\.digits/),
    ]);
    expect(codes(bell, { ...bell, id: 'other-bell', digits: '5998' })).toEqual([
      'serial-twice doorbells.0.serial',
      'serial-twice doorbells.1.serial',
    ]);
    const kind = 'doorbell' as never;
    expect([plan.wordOf(kind), plan.areaOf(kind), plan.pathOf(kind, 'bell')]).toEqual([
      'doorbell',
      'incoming',
      '/doorbells/bell',
    ]);
    expect(plan.DESTINATION_KINDS).toContain('doorbell');
    expect(JSON.stringify(plan.planJsonSchema())).toContain('On its back. Example: DB-17.');
    const read = plan.readPlan(documentWith(bell));
    if (!read.ok) throw new Error('not read');
    expect(plan.referrersTo(read.plan, 'desk').map((r) => r.kind)).toContain('doorbell');
    const renamed = plan.planWith(read.plan, [{ kind, id: 'bell', value: { ...bell, name: 'Front door' } as never }]);
    expect(plan.differences(read.plan, renamed).map((d) => `${d.kind} ${d.id}`)).toEqual(['doorbell bell']);
    const alone = plan.readPlan(documentWith({ ...bell, rings: 'round' }));
    if (!alone.ok) throw new Error('not read');
    const gone = [{ kind: 'ringGroup' as const, id: 'round', value: null }];
    const said = new plan.PlanIndex(alone.plan).errorsOf(plan.planWith(alone.plan, gone), gone);
    expect(said.map((e) => e.sentence)).toEqual([
      'doorbell Back door still refer to ring group round; change them first.',
    ]);
  });

  it('is dialled, leads calls on and shows in what follows from an edit', async () => {
    const { plan, routing } = withDoorbells();
    const { consequencesOf } = jest.requireActual<typeof import('@/core/analysis')>('@/core/analysis');
    const read = plan.readPlan(documentWith(bell));
    if (!read.ok) throw new Error('not read');
    const x = routing.compile(read.plan);
    const at = Date.UTC(2026, 10, 23, 10);
    const call = { from: { type: 'extension' as const, id: 'e2' }, dial: '5999', enBloc: true, at };
    expect(routing.trace(x, call, {}).lands).toMatchObject({ kind: 'ringGroup', id: 'desk' });
    const other = plan.planWith(read.plan, [
      { kind: 'doorbell' as never, id: 'bell', value: { ...bell, rings: 'round' } as never },
    ]);
    const found = consequencesOf(routing.compile(other), x, 'doorbell' as never, 'bell', at, {});
    expect(found.changes[0]).toMatchObject({ was: { lands: { id: 'desk' } }, willBe: { lands: { id: 'round' } } });
  });

  it('is written to its table and read back, and cut from who may not see its area', async () => {
    const { plan } = withDoorbells();
    const { writeObjects, writeOrganisation } =
      jest.requireActual<typeof import('@/server/db/write-objects')>('@/server/db/write-objects');
    const { loadPlan } = jest.requireActual<typeof import('@/server/db/load-plan')>('@/server/db/load-plan');
    const { Sight } = jest.requireActual<typeof import('@/server/access/sight')>('@/server/access/sight');
    const read = plan.readPlan(documentWith(bell));
    if (!read.ok) throw new Error('not read');
    const writer = connection as unknown as Writer;
    const objects = plan.OBJECT_KINDS.flatMap((kind) =>
      (plan.objectsOf(read.plan, kind) as { id: string }[]).map((after) => ({
        kind,
        id: after.id,
        before: null,
        after: after as never,
        rowVersion: null,
      })),
    );
    await writeOrganisation(writer, read.plan.organisation, null);
    expect(await writeObjects(writer, objects, () => 'organisation')).toBe(true);
    const loaded = await loadPlan(writer);
    expect(plan.planText(loaded!.plan)).toBe(plan.planText(read.plan));
    expect(JSON.parse(plan.planText(loaded!.plan))).toMatchObject({ doorbells: [bell] });
    const numbersOnly = { grants: [{ right: 'look', areas: ['numbers'], sites: 'all' }] };
    const sight = new Sight({ role: numbersOnly } as never, read.plan);
    expect(sight.list('doorbell' as never)).toEqual([]);
    expect(sight.cut({ text: 'then Back door rings' })).toEqual({ text: 'then not yours to see rings' });
  });
});
