import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { OBJECT_KINDS, objectsOf } from '@/core/plan';
import { closePool, reading } from '@/server/db/pool';
import { readVersions } from '@/server/db/versions';
import { Ground } from '@/server/engine/ground/held';
import { Client, admin, rowVersion, type Document } from '../support/api';

/* What a thread of the engine holds, against the database of the running application. */

let boss: Client;
let person: { id: string; [key: string]: unknown };
beforeAll(async () => {
  boss = await admin();
  person = (await boss.get<Document>('/plan')).body.people!.find((p) => p.id === 'p-2119')!;
});
afterAll(closePool);

async function noted(note: string) {
  const edit = {
    kind: 'person',
    id: person.id,
    rowVersion: await rowVersion('person', person.id),
    value: { ...person, note },
  };
  expect((await boss.post('/edits', { edits: [edit] })).status).toBe(200);
  return reading(readVersions);
}

const noteIn = (both: Awaited<ReturnType<Ground['now']>>) =>
  both.draft.plan.people.find((p) => p.id === person.id)!.note;

describe('held plans', () => {
  it('follow edits by what they are about: every other list stays the same object', async () => {
    const ground = new Ground();
    const before = await ground.now();
    before.draft.exchange();
    expect((await ground.now()).draft).toBe(before.draft);
    await noted('followed');
    const after = await ground.now();
    expect(noteIn(after)).toBe('followed');
    for (const kind of OBJECT_KINDS)
      if (kind !== 'person') expect(objectsOf(after.draft.plan, kind)).toBe(objectsOf(before.draft.plan, kind));
    expect(after.live).toBe(before.live);
    // What was compiled of things that stay is taken over.
    expect(after.draft.exchange().rungsOf).toBe(before.draft.exchange().rungsOf);
    expect(after.draft.exchange().routes).toBe(before.draft.exchange().routes);
  });

  it('answer all parts of a page from the versions that it began with', async () => {
    const ground = new Ground();
    const begun = await reading(readVersions);
    const first = await ground.now(begun);
    const one = await noted('one');
    const two = await noted('two');
    expect(noteIn(await ground.now(one))).toBe('one');
    expect((await ground.now(one)).draft.version).toBe(one.draft);
    expect((await ground.now(begun)).draft).toBe(first.draft);
    expect(noteIn(await ground.now())).toBe('two');
    expect((await ground.now(two)).draft.version).toBe(two.draft);
    // A page that began long ago is answered from what is there now.
    for (let i = 0; i < 6; i++) {
      await noted(`later ${i}`);
      await ground.now();
    }
    expect(noteIn(await ground.now(one))).toBe('later 5');
  });

  it('take the draft for live when it goes live, without reading it again', async () => {
    const ground = new Ground();
    await noted('goes live');
    const before = await ground.now();
    const { draft } = await reading(readVersions);
    expect((await boss.post('/live', { draftVersion: draft, note: 'held', override: 'tried' })).status).toBe(200);
    const after = await ground.now();
    expect(after.live.plan).toBe(before.draft.plan);
    expect(after.draft.plan).toBe(before.draft.plan);
  });

  it('leave things as they were', async () => {
    await noted(String(person.note));
    const { draft } = await reading(readVersions);
    expect((await boss.post('/live', { draftVersion: draft, note: 'as it was' })).status).toBe(200);
  });
});
