import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import { Client, admin } from '../support/api';
import { AUDITOR, BASE } from '../support/browser';
import { undoTo } from '../support/jobs';
import { toneWav } from '../support/tones';

/* Sounds through the API: kept by what is heard, at both rates, with what is wrong said; texts spoken; one prompt in another's place. */

jest.setTimeout(120_000);

interface Sound {
  id: string;
  seconds: number;
  facts: { format: string; gain: number; faults: { code: string }[]; peaks: number[] };
}
let boss: Client;
let before: object;
beforeAll(async () => {
  boss = await admin();
  before = (await boss.get<object>('/plan')).body;
});
afterAll(() => undoTo(boss, before));

const upload = async (bytes: Uint8Array, client = boss) => {
  const { status, body } = await client.file('/sounds', bytes);
  return { status, body: body as unknown as Sound & { error?: { code: string; path: string; atSeconds?: number } } };
};

describe('sounds', () => {
  it('the same sound is kept once, at 16 000 and 8 000 samples a second', async () => {
    const [one, two] = [await upload(toneWav(1.5)), await upload(toneWav(1.5))];
    expect(one.status).toBe(200);
    expect(two.body.id).toBe(one.body.id);
    expect([one.body.seconds, one.body.facts.format, one.body.facts.faults]).toEqual([1.5, 'WAV', []]);
    for (const [rate, octets] of [
      [16_000, 48_044],
      [8000, 24_044],
    ] as const) {
      const { status, type, text } = await boss.text(`/sounds/${one.body.id}?rate=${rate}`);
      expect([status, type.split(';')[0]]).toEqual([200, 'audio/wav']);
      expect(text.startsWith('RIFF')).toBe(true);
      const whole = await boss.octets(`/sounds/${one.body.id}?rate=${rate}`);
      expect(whole.length).toBe(octets);
      expect(new DataView(whole.buffer).getUint32(24, true)).toBe(rate);
    }
    expect((await boss.get<Sound>(`/sounds/${one.body.id}/facts`)).body.facts.peaks.length).toBeGreaterThan(100);
  });

  it('what is broken is said, with the second, and nothing is kept', async () => {
    const whole = toneWav(2);
    const { status, body } = await upload(whole.slice(0, whole.length / 2));
    expect([status, body.error!.code, body.error!.path]).toEqual([422, 'cut-off', 'file']);
    expect(body.error!.atSeconds).toBeCloseTo(1, 1);
    expect((await upload(new Uint8Array([1, 2, 3]))).body.error!.code).toBe('not-sound');
    expect((await boss.get('/sounds/' + '0'.repeat(64) + '/facts')).status).toBe(404);
  });

  it('a text is spoken, in the voice of its language', async () => {
    const speak = (text: string, language: string) => boss.post<Sound>('/sounds/spoken', { text, language });
    const [en, sv] = [await speak('For freight press 3.', 'en'), await speak('För frakt tryck 3.', 'sv')];
    expect([en.status, sv.status]).toEqual([200, 200]);
    expect(en.body.id).not.toBe(sv.body.id);
    expect(en.body.seconds).toBeGreaterThan(0.8);
    const slow = await speak('For freight <break time="2s"/> press 3.', 'en');
    expect(slow.body.seconds - en.body.seconds).toBeGreaterThan(1.5);
    expect((await boss.post('/sounds/spoken', { text: '', language: 'en' })).status).toBe(400);
    expect((await speak('x', 'xx-nowhere')).status).toBe(422);
  });

  it('a part is cut and faded; beyond the end is refused', async () => {
    const { body } = await upload(toneWav(3));
    const cut = await boss.post<Sound>(`/sounds/${body.id}/parts`, { from: 1, to: 2, fadeIn: 0.2, fadeOut: 0.2 });
    expect([cut.status, cut.body.seconds]).toEqual([200, 1]);
    expect((await boss.post(`/sounds/${body.id}/parts`, { from: 5, to: 6 })).body.error!.path).toBe('from');
    expect((await boss.post(`/sounds/${body.id}/parts`, { from: 2, to: 1 })).body.error!.path).toBe('to');
  });

  it('what the exchange says itself was spoken at set-up, in each language', async () => {
    const spoken = async (phrase: string, language: string) =>
      (await boss.text(`/phrases/${phrase}/${language}`)).status;
    for (let i = 0; i < 300 && (await spoken('goodbye', 'de')) !== 200; i++)
      await new Promise((r) => setTimeout(r, 200));
    for (const language of ['en', 'sv', 'de']) expect(await spoken('hand-over', language)).toBe(200);
    expect(await spoken('nothing', 'en')).toBe(404);
    expect(await spoken('__proto__', 'en')).toBe(404);
  });

  it('a phrase with a figure is spoken with each figure, in one’s own words where there are some', async () => {
    const said = (query: string, phrase = 'position', language = 'en') =>
      boss.octets(`/phrases/${phrase}/${language}${query}`);
    expect((await boss.text('/phrases/position/en')).status).toBe(422);
    expect((await boss.text('/phrases/position/en?figure=abcd')).status).toBe(400);
    expect((await boss.text('/phrases/position/en?figure=007')).status).toBe(400);
    const hundreds = await said('?figure=555');
    expect(hundreds.length).toBeGreaterThan(20_000);
    expect(await said('?figure=555')).toEqual(hundreds);
    const [three, seventy, again] = [await said('?figure=3'), await said('?figure=77'), await said('?figure=3')];
    expect(again).toEqual(three);
    // “Seventy-seven” takes longer to say than “three”.
    expect(seventy.length).toBeGreaterThan(three.length + 3000);
    expect(await said('?figure=3', 'position', 'de')).not.toEqual(three);
    const own = {
      id: 'own-position',
      name: 'Own place',
      phrase: 'position',
      language: 'en',
      text: 'Only {place} to go!',
    };
    const made = await boss.post('/edits', { edits: [{ kind: 'prompt', id: own.id, rowVersion: null, value: own }] });
    expect(made.status).toBe(200);
    const mine = await said('?figure=3');
    expect(mine.length).toBeGreaterThan(5000);
    expect(mine).not.toEqual(three);
    await boss.post('/edits/undo');
    expect(await said('?figure=3')).toEqual(three);
  });

  it('who only looks hears, and adds nothing; who has not signed in hears nothing', async () => {
    const looker = await Client.signedIn(AUDITOR);
    const { body } = await upload(toneWav(1));
    expect((await looker.text(`/sounds/${body.id}`)).status).toBe(200);
    expect((await upload(toneWav(1), looker)).status).toBe(403);
    expect((await looker.post('/sounds/spoken', { text: 'x', language: 'en' })).status).toBe(403);
    expect((await fetch(`${BASE}/api/v1/sounds/${body.id}`)).status).toBe(401);
  });

  it('one prompt takes the place of another everywhere, as one edit', async () => {
    const done = await boss.post<{ batch?: string }>('/prompts/prompt-sailing/replacement', { by: 'prompt-storm' });
    expect(done.status).toBe(200);
    const { body } = await boss.get<{ announcements: { id: string; prompt: string }[] }>('/plan');
    expect(body.announcements.find((a) => a.id === 'sailing-status')!.prompt).toBe('prompt-storm');
    expect((await boss.post('/prompts/prompt-sailing/replacement', { by: 'prompt-storm' })).status).toBe(409);
    expect((await boss.post('/prompts/nowhere/replacement', { by: 'prompt-storm' })).status).toBe(404);
    await boss.post('/edits/undo');
    expect(JSON.stringify((await boss.get('/plan')).body)).toBe(JSON.stringify(before));
  });
});
