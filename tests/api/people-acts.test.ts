import { beforeAll, describe, expect, it, jest } from '@jest/globals';
import { Client, admin, auditor, objectIn, type Document } from '../support/api';
import { ended } from '../support/jobs';

/* Many at once, and the guided acts of moving and leaving, through the API; each is one edit that is undone as one. */

let boss: Client;
beforeAll(async () => {
  boss = await admin();
});
const plan = async () => (await boss.get<Document>('/plan')).body;
const undo = async () => expect((await boss.post('/edits/undo')).status).toBe(200);

/* Jobs wait for the worker, which leaves the processor to others. */
jest.setTimeout(60_000);

describe('editing many at once', () => {
  const of = { ledger: 'person', facets: { team: 'team-terminal-desks' } };

  it('lists every change first, makes them as one edit, and one undo takes all back', async () => {
    const before = await plan();
    const change = { ringSeconds: 33, language: 'sv', mailbox: { mostMessages: 55 } };
    const preview = await boss.post<{ count: number; lines: { kind: string }[] }>('/bulk/preview', { of, change });
    const members = before.people!.filter((p) => (p.teams as string[]).includes('team-terminal-desks')).length;
    expect(preview.body.count).toBe(members * 3);
    expect((await plan()).people).toEqual(before.people);
    const { body } = await boss.post<{ job: string }>('/bulk', { of, change });
    expect(await ended(boss, body.job)).toMatchObject({ state: 'done', result: { changed: members * 3 } });
    const after = await plan();
    expect(after.extensions!.filter((e) => e.ringSeconds === 33)).toHaveLength(members);
    expect(after.mailboxes!.filter((m) => m.mostMessages === 55)).toHaveLength(members);
    await undo();
    expect(await plan()).toEqual(before);
  });

  it('is refused whole when one of them can’t be changed so', async () => {
    const before = await plan();
    const change = { mailbox: { afterMail: 'delete' } };
    const preview = await boss.post<{ errors: unknown[] }>('/bulk/preview', { of, change });
    expect(preview.body.errors.length).toBeGreaterThan(0);
    const { body } = await boss.post<{ job: string }>('/bulk', { of, change });
    expect(await ended(boss, body.job)).toMatchObject({ state: 'refused' });
    expect(await plan()).toEqual(before);
  });

  it('refuses an empty change, unknown fields and unknown facets', async () => {
    expect((await boss.post('/bulk/preview', { of, change: {} })).status).toBe(400);
    expect((await boss.post('/bulk/preview', { of, change: { shoe: 1 } })).status).toBe(400);
    expect(
      (
        await boss.post('/bulk/preview', {
          of: { ledger: 'person', facets: { colour: 'x' } },
          change: { ringSeconds: 20 },
        })
      ).status,
    ).toBe(400);
    expect((await (await auditor()).post('/bulk', { of, change: { ringSeconds: 20 } })).status).toBe(403);
  });
});

describe('somebody leaves', () => {
  it('and nothing of theirs is left, their forwarding ends, and one undo brings all back', async () => {
    const before = await plan();
    await boss.put('/extensions/e-2106/forwarding', { when: 'busy', to: '2111' });
    await boss.put('/extensions/e-2111/forwarding', { when: 'always', to: '2105' });
    const proposal = await boss.get<{
      items: { kind: string }[];
      draftVersion: number;
      forwarding: { label: string }[];
    }>('/people/p-2111/leave');
    expect(proposal.body.items.map((i) => i.kind)).toEqual(expect.arrayContaining(['extension', 'mailbox', 'number']));
    expect(proposal.body.forwarding).toHaveLength(1);
    const done = await boss.post('/people/p-2111/leave', { draftVersion: proposal.body.draftVersion });
    expect(done.status).toBe(200);
    const after = JSON.stringify(await plan());
    for (const id of ['p-2111', 'e-2111', 'm-2111']) expect(after).not.toContain(`"${id}"`);
    await undo();
    expect(await plan()).toEqual(before);
  });

  it('an extension that is kept goes on to a place until a day', async () => {
    const choices = { 'extension e-2113': { do: 'keep virtual' } };
    expect((await boss.post('/people/p-2113/leave', { choices })).body.error).toMatchObject({ path: 'forward' });
    const past = { to: '2105', until: '2020-01-01' };
    expect((await boss.post('/people/p-2113/leave', { choices, forward: past })).body.error).toMatchObject({
      path: 'forward.until',
    });
    const forward = { to: '2105', until: '2099-12-31' };
    expect((await boss.post('/people/p-2113/leave', { choices, forward })).status).toBe(200);
    expect(await objectIn(boss, 'draft', 'extensions', 'e-2113')).toMatchObject({
      kind: 'virtual',
      person: null,
      sipPassword: null,
    });
    const asked = await boss.get<{ lands: { id: string } }>('/trace?from=2101&dial=2113');
    expect(asked.body.lands.id).toBe('e-2105');
    await undo();
    await boss.put('/extensions/e-2113/forwarding', { when: 'always', to: null });
  });

  it('a list made from an older draft is refused, and so is whoever may not edit', async () => {
    const { body } = await boss.get<{ draftVersion: number }>('/people/p-2114/leave');
    expect((await boss.post('/people/p-2114/leave', { draftVersion: body.draftVersion - 1 })).status).toBe(409);
    expect((await (await auditor()).post('/people/p-2114/leave', {})).status).toBe(403);
    expect((await boss.get('/people/nobody/leave')).status).toBe(404);
  });
});

describe('somebody moves, or becomes like another', () => {
  it('moves with digits, number and mailbox', async () => {
    const offer = await boss.get<{ digits: { free: string[] }[]; freeNumbers: { id: string }[] }>(
      '/people/p-2115/move?site=vastra-kajen',
    );
    const wish = {
      site: 'vastra-kajen',
      digits: { 'e-2115': offer.body.digits[0]!.free[0]! },
      number: { take: offer.body.freeNumbers[0]!.id },
    };
    const preview = await boss.post<{ lines: { kind: string }[] }>('/people/p-2115/move/preview', wish);
    expect(preview.body.lines.map((l) => l.kind).sort()).toEqual([
      'extension',
      'mailbox',
      'number',
      'number',
      'person',
    ]);
    expect((await boss.post('/people/p-2115/move', wish)).status).toBe(200);
    expect(await objectIn(boss, 'draft', 'extensions', 'e-2115')).toMatchObject({
      site: 'vastra-kajen',
      digits: wish.digits['e-2115'],
    });
    await undo();
    expect(
      (await boss.post('/people/p-2115/move', { ...wish, digits: { 'e-2115': '3001' } })).body.error,
    ).toMatchObject({ path: 'digits.e-2115' });
  });

  it('is the same as another afterwards, part by part', async () => {
    const same = () => boss.get<{ parts: { part: string; same: boolean }[] }>('/people/p-2116/same-as?other=p-2104');
    const differing = (await same()).body.parts.filter((p) => !p.same).map((p) => p.part);
    expect(differing).toEqual(expect.arrayContaining(['class', 'teams']));
    expect((await boss.post('/people/p-2116/same-as', { other: 'p-2104', parts: differing })).status).toBe(200);
    expect((await same()).body.parts.filter((p) => !p.same)).toEqual([]);
    expect((await boss.post('/people/p-2116/same-as', { other: 'p-2104', parts: differing })).status).toBe(409);
    await undo();
  });
});

describe('numbers by the list, sites and joiners', () => {
  it('adds what is not known, refuses what is wrong with its line, and gives them by last digits', async () => {
    const list = { site: 'vastra-kajen', trunk: 'sundvik', state: 'active', activeFrom: null };
    const wrong = await boss.post('/numbers', { ...list, text: '+46 31 390 0700\nhello' });
    expect(wrong.body.error).toMatchObject({ path: 'text.2' });
    const read = await boss.post<{ entries: { count: number; known: number }[] }>('/numbers/read', {
      ...list,
      text: '+46 31 390 0648 to 0651',
    });
    expect(read.body.entries).toMatchObject([{ count: 4, known: 2 }]);
    const added = await boss.post<{ added: number; known: number }>('/numbers', {
      ...list,
      text: '+46 31 390 0648 to 0651',
      activeFrom: '2099-01-01',
    });
    expect([added.body.added, added.body.known]).toEqual([2, 2]);
    const asked = await boss.get<{ outcome: string }>('/trace?from=outside:%2B46846500417&dial=%2B46313900650');
    expect(asked.body.outcome).toBe('unroutable');
    await undo();
    const ids = (await plan())
      .numbers!.filter((n) => /^\+46313900(606|612|618)$/.test(String(n.e164)))
      .map((n) => n.id);
    const preview = await boss.post<{ pairs: { extension: string }[] }>('/numbers/assign/preview', {
      numbers: ids,
      how: 'last digits',
    });
    expect(preview.body.pairs.map((p) => p.extension.slice(0, 4))).toEqual(['3006', '3012', '3018']);
    expect((await boss.post('/numbers/assign', { numbers: ids, how: 'last digits' })).status).toBe(200);
    await undo();
  });

  it('a site abroad comes with its numbers; wrong ones are refused at the field', async () => {
    const proposal = await boss.get<{ zone: string; range: { from: string; to: string } }>(
      '/sites/proposal?country=NO',
    );
    const site = {
      name: 'Oslo',
      country: 'NO',
      zone: proposal.body.zone,
      language: 'nb',
      ranges: [proposal.body.range],
      numbers: '+47 21 93 00 00 to 0009',
    };
    expect((await boss.post('/sites', { ...site, numbers: '+47 1' })).body.error).toMatchObject({ path: 'numbers' });
    expect((await boss.post('/sites', { ...site, zone: 'Oslo' })).body.error).toMatchObject({ path: 'zone' });
    const made = await boss.post<{ id: string }>('/sites', site);
    expect(made.status).toBe(200);
    const after = await plan();
    expect(after.numbers!.filter((n) => n.site === made.body.id)).toHaveLength(10);
    expect(after.sites!.find((s) => s.id === made.body.id)!.mainNumber).toBe(
      after.numbers!.find((n) => n.e164 === '+4721930000')!.id,
    );
    await undo();
  });

  it('a joiner like somebody gets their rights, teams and reach plan', async () => {
    const joiner = {
      digits: '2188',
      name: 'Like Amara',
      kind: 'person',
      site: 'north-quay',
      class: 'staff',
      makePerson: true,
      mailbox: { pin: '2580', email: null },
      sameAs: 'p-2104',
    };
    const made = await boss.post<{ id: string }>('/extensions', joiner);
    expect(made.status).toBe(200);
    const model = await objectIn(boss, 'draft', 'extensions', 'e-2104');
    const mine = (await objectIn(boss, 'draft', 'extensions', made.body.id))!;
    expect(mine.class).toBe(model!.class);
    const person = await objectIn(boss, 'draft', 'people', String(mine.person));
    expect(person!.teams).toEqual((await objectIn(boss, 'draft', 'people', 'p-2104'))!.teams);
    await undo();
    expect((await boss.post('/extensions', { ...joiner, sameAs: 'nobody' })).body.error).toMatchObject({
      path: 'sameAs',
    });
  });

  it('the organisation’s rule for PINs is held to, for new ones', async () => {
    const organisation = (await plan()).organisation as unknown as Record<string, unknown>;
    const edit = (rowVersion: number) =>
      boss.post<{ rowVersions: Record<string, number> }>('/edits', {
        edits: [
          { kind: 'organisation', id: 'organisation', rowVersion, value: { ...organisation, pinLeastDigits: 6 } },
        ],
      });
    const stale = await edit(99_999);
    expect((await edit((stale.body.error as unknown as { rowVersion: number }).rowVersion)).status).toBe(200);
    const refused = await boss.put('/mailboxes/m-2107/pin', { pin: '2580' });
    expect(refused.body.error!.sentence).toBe('A PIN has at least 6 digits.');
    expect((await boss.put('/mailboxes/m-2107/pin', { pin: '258046' })).status).toBe(200);
    await undo();
  });

  it('people go into teams and out of them', async () => {
    expect((await boss.put('/teams/team-customs/people/p-2105', { member: true })).status).toBe(200);
    expect((await boss.put('/teams/team-customs/people/p-2105', { member: true })).status).toBe(409);
    expect((await objectIn(boss, 'draft', 'people', 'p-2105'))!.teams).toContain('team-customs');
    await undo();
    expect((await boss.put('/teams/none/people/p-2105', { member: true })).status).toBe(404);
  });
});
