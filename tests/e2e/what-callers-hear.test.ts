import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import { Client, admin, objectIn, rowVersion } from '../support/api';
import { ADMIN, fill, openBrowser, press, signedIn, visit, waitForText } from '../support/browser';
import { Hand } from '../support/hand';
import { undoTo } from '../support/jobs';
import { toneWav } from '../support/tones';
import { until } from '../support/until';

/* An attendant from nothing, its keys and second level, prompts uploaded, recorded and spoken, and the caller played. */

jest.setTimeout(180_000);

let browser: Browser;
let page: Page;
let hand: Hand;
let boss: Client;
let before: object;
beforeAll(async () => {
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
  hand = new Hand(page);
  boss = await admin();
  before = (await boss.get<object>('/plan')).body;
});
afterAll(async () => {
  await undoTo(boss, before);
  await browser.close();
});

interface Key {
  attendant: string;
  mode: string;
  key: string;
  does: string;
  leadsTo: string | null;
  silent: boolean;
}
interface Plan {
  attendants: { id: string; name: string; above: string | null; greetingOpen: string | null }[];
  attendantKeys: Key[];
  prompts: {
    id: string;
    name: string;
    text: string;
    sound: string | null;
    seconds: number;
    versions: { language: string; text: string; sound: string | null }[];
  }[];
}
const plan = async () => (await boss.get<Plan>('/plan')).body;

const keysOf = async (attendant: string) =>
  (await plan()).attendantKeys.filter((k) => k.attendant === attendant).map((k) => [k.key, k.does, k.leadsTo]);

describe('an attendant from its greeting', () => {
  let id: string;

  it('reads the keys from what is typed, is heard, and is made in one act', async () => {
    await visit(page, '/attendants');
    await press(page, 'Begin with the greeting');
    await hand.into('#begin-name', 'Harbour line');
    await hand.into('#begin-text', 'Welcome to the harbour. For tickets press 1, for lost luggage press 4.');
    await page.waitForFunction(() => document.querySelectorAll('[data-testid=spoken-key]').length === 3);
    await hand.find('[aria-label="Where key 1 leads"]', '2000');
    await hand.find('[aria-label="Where no key leads"]', '2000');
    // What was typed is there when one comes back.
    await visit(page, '/prompts');
    await visit(page, '/attendants/begin');
    expect(await page.$eval('#begin-name', (e) => (e as HTMLInputElement).value)).toBe('Harbour line');
    await press(page, 'Hear it');
    await page.waitForSelector('[aria-label="Play the greeting"]');
    await press(page, 'Make this attendant');
    const made = await until(
      async () => (await plan()).attendants.find((a) => a.name === 'Harbour line'),
      'the attendant',
    );
    ({ id } = made);
    expect((await keysOf(id)).sort()).toEqual([
      ['1', 'lead', 'e-2000'],
      ['no key', 'lead', 'e-2000'],
    ]);
    const greeting = (await plan()).prompts.find((p) => p.id === made.greetingOpen)!;
    expect(greeting.sound).toMatch(/^[0-9a-f]{64}$/);
    expect(greeting.seconds).toBeGreaterThan(2);
  });

  it('its page says that key 4 is promised and empty; what a key does is chosen on it', async () => {
    await page.waitForSelector('[data-testid=keypad]');
    await waitForText(page, 'empty; the greeting says lost luggage', '[data-key="4"]');
    await page.click('[data-key="4"]');
    await page.waitForSelector('[aria-label="What key 4 does"]');
    await page.select('[aria-label="What key 4 does"]', 'end');
    await until(async () => (await keysOf(id)).some(([k, does]) => k === '4' && does === 'end'), 'key 4 ends the call');
    await waitForText(page, 'ends the call', '[data-key="4"]');
    await page.select('[aria-label="What key 4 does"]', 'repeat');
    await until(async () => (await keysOf(id)).some(([k, does]) => k === '4' && does === 'repeat'), 'key 4 repeats');
    await page.click('[data-key="1"]');
    await waitForText(page, 'Tells the caller that they are being connected');
    await page.click('section input[type=checkbox]');
    await until(
      async () => (await plan()).attendantKeys.some((k) => k.attendant === id && k.key === '1' && !k.silent),
      'key 1 speaks',
    );
    await waitForText(page, 'says so first', '[data-key="1"]');
  });

  it('a key is moved by keyboard, onto an empty one and onto another', async () => {
    const move = async (key: string, arrows: string[]) => {
      await page.focus(`[aria-label="Move key ${key} to another"]`);
      for (const code of [' ', ...arrows, ' ']) {
        await page.keyboard.press(code as 'Space');
        await new Promise((done) => setTimeout(done, 250));
      }
    };
    await move('4', ['ArrowRight']);
    await until(async () => (await keysOf(id)).some(([k]) => k === '5'), 'key 4 is key 5');
    await page.waitForSelector('[aria-label="Move key 5 to another"]');
    await move('5', ['ArrowUp', 'ArrowLeft']);
    await until(
      async () =>
        JSON.stringify(
          (await keysOf(id))
            .filter(([k]) => k!.length === 1)
            .map(([k, does]) => `${k} ${does}`)
            .sort(),
        ) === '["1 repeat","5 lead"]',
      'keys 1 and 5 have changed places',
    );
  });

  it('a second level is made behind a key, and leads back', async () => {
    await page.click('[data-key="2"]');
    await press(page, 'Make a second level here');
    const level = await until(async () => (await plan()).attendants.find((a) => a.above === id), 'the second level');
    await waitForText(page, 'Harbour line, key 2', 'h1');
    await page.click('[data-key="*"]');
    await page.select('[aria-label="What key * does"]', 'back');
    await until(
      async () => (await keysOf(level.id)).some(([k, does]) => k === '*' && does === 'back'),
      'star goes back',
    );
    expect(await keysOf(id)).toContainEqual(['2', 'lead', level.id]);
  });
});

describe('an attendant goes', () => {
  it('with its keys, once nothing leads there any more', async () => {
    const level = (await plan()).attendants.find((a) => a.name === 'Harbour line, key 2')!;
    await visit(page, `/attendants/${level.id}`);
    await press(page, 'Delete…');
    await waitForText(page, '1 thing still points to attendant', '[role=alertdialog]');
    await press(page, 'Keep it');
    await visit(page, `/attendants/${level.above}`);
    await page.click('[data-key="2"]');
    await press(page, 'Clear key 2');
    await until(async () => !(await keysOf(level.above!)).some(([k]) => k === '2'), 'key 2 is cleared');
    await visit(page, `/attendants/${level.id}`);
    await press(page, 'Delete…');
    await waitForText(page, 'with 1 thing that is a part of it', '[role=alertdialog]');
    await press(page, 'Delete Harbour line, key 2');
    await until(async () => !(await plan()).attendants.some((a) => a.id === level.id), 'the level is gone');
    expect(await keysOf(level.id)).toEqual([]);
  });
});

describe('prompts', () => {
  const folder = mkdtempSync(join(tmpdir(), 'polydrome-sound-'));
  const soundOf = async (id: string) => (await plan()).prompts.find((p) => p.id === id)!;
  const chooseFile = async (name: string, bytes: Uint8Array) => {
    writeFileSync(join(folder, name), bytes);
    const box = (await page.waitForSelector(
      'input[type=file][aria-label="Sound file"]',
    )) as ElementHandle<HTMLInputElement>;
    await box.uploadFile(join(folder, name));
  };

  it('a broken file is refused with the second; a whole one is heard, and trimmed', async () => {
    await visit(page, '/prompts/prompt-sailing');
    const was = (await soundOf('prompt-sailing')).sound;
    const whole = toneWav(4);
    await chooseFile('broken.wav', whole.slice(0, whole.length / 2));
    await waitForText(page, 'The WAV file is cut off after 2.0 s.', '[role=alert]');
    expect((await soundOf('prompt-sailing')).sound).toBe(was);
    await chooseFile('whole.wav', whole);
    await until(async () => (await soundOf('prompt-sailing')).seconds === 4, 'the new sound');
    await press(page, 'Trim and fade');
    await page.waitForFunction(() => [...document.querySelectorAll('[data-testid=trimmer] input')].length === 4);
    const to = (await page.$$('[data-testid=trimmer] input'))[1]!;
    await to.click({ count: 3 });
    await page.keyboard.type('2.5');
    await page.keyboard.press('Tab');
    await press(page, 'Keep this part');
    await until(async () => (await soundOf('prompt-sailing')).seconds === 2.5, 'the part');
  });

  it('what is said here is recorded, and a text is spoken in another language', async () => {
    await press(page, 'Record here');
    await waitForText(page, /Stop recording, [1-9] s/);
    await (await page.waitForSelector('::-p-xpath(//button[contains(., "Stop recording")])'))!.click();
    await until(async () => {
      const { seconds } = await soundOf('prompt-sailing');
      return seconds !== 2.5 && seconds > 0.5;
    }, 'the recording');
    await hand.find('#new-version', 'Swedish');
    await until(async () => (await soundOf('prompt-sailing')).versions.length === 1, 'the Swedish version');
    await waitForText(page, 'Swedish', '[role=tab][aria-selected=true]');
    await page.click('textarea[data-field=versions]');
    await page.keyboard.type('Alla avgångar går i tid.');
    await page.keyboard.press('Tab');
    await until(async () => (await soundOf('prompt-sailing')).versions[0]!.text !== '', 'the Swedish text');
    await press(page, 'Speak the text');
    await until(async () => (await soundOf('prompt-sailing')).versions[0]!.sound !== null, 'the Swedish sound');
  });

  it('is replaced wherever it is heard', async () => {
    await page.select('[aria-label="Another prompt for all of these"]', 'prompt-storm');
    await press(page, 'Replace it in all 2 places');
    await waitForText(page, 'Nowhere yet.');
  });
});

describe('what the exchange says itself', () => {
  it('is heard in each language, with a figure where it says one', async () => {
    await visit(page, '/prompts');
    const heard = async (phrase: string, language: string) => {
      const label = `[aria-label="Hear “${phrase}” in ${language}"]`;
      await (await page.waitForSelector(label))!.click();
      const seconds = await page.waitForFunction(
        (at: string) => {
          const player = document.querySelector(at)!.parentElement!.querySelector('audio')!;
          return player.currentTime > 0 && player.duration;
        },
        {},
        label,
      );
      return (await seconds.jsonValue()) as number;
    };
    const english = await heard('position', 'English');
    expect(english).toBeGreaterThan(1);
    await press(page, 'German');
    expect(await heard('position', 'German')).not.toBe(english);
    expect(await heard('goodbye', 'German')).toBeGreaterThan(1);
  });
});

describe('music while they wait', () => {
  it('is chosen for a site and for a queue with its own; who waits hears it', async () => {
    const queue = {
      id: 'waiting-room',
      name: 'Waiting room',
      site: 'north-quay',
      digits: '6688',
      permanentAgents: ['e-2101'],
    };
    const made = await boss.post('/edits', {
      edits: [{ kind: 'queue', id: queue.id, rowVersion: null, value: queue }],
    });
    expect(made.status).toBe(200);
    await visit(page, '/prompts');
    // A short list is plain, a long one is found by typing.
    const choose = async (selector: string, text: string) =>
      (await page.$eval(selector, (e) => e.tagName)) === 'SELECT'
        ? hand.choose(selector, text)
        : hand.find(selector, text);
    await choose(`[aria-label="Music of North Quay"]`, 'bad weather');
    const site = async () => (await objectIn(boss, 'draft', 'sites', 'north-quay'))?.music;
    await until(async () => (await site()) === 'greeting-storm', 'the music of the site');
    const own = '[aria-label^="Music of "][aria-label*="Waiting room"]';
    // Without its own it hears that of its site, and the page says so.
    await page.waitForFunction(
      (at: string) => {
        const box = document.querySelector(at)!;
        return `${box.getAttribute('placeholder')} ${box.textContent}`.includes(
          'as its site: Main greeting, bad weather',
        );
      },
      {},
      own,
    );
    await choose(own, 'ailing');
    await until(
      async () => (await objectIn(boss, 'draft', 'queues', queue.id))?.music === 'prompt-sailing',
      'the music of the queue',
    );
    await visit(page, `/rehearsal?from=2101&dial=${queue.digits}&at=fri%2010:00`);
    await waitForText(page, 'All sailings leave on time', '[data-testid=transcript]');
  });
});

describe('rehearsal', () => {
  const call = '/rehearsal?from=outside:%2B447700900999&dial=%2B441632960183&at=fri%2010:00';
  const transcript = () =>
    page.$eval('[data-testid=transcript]', (e) => (e as HTMLElement).innerText.replace(/\s+/g, ' '));

  it('hears the greeting, presses keys on the keyboard, and meets who answers', async () => {
    await visit(page, call);
    await waitForText(page, 'Welcome to Lanternfold Ferries', '[data-testid=transcript]');
    await page.keyboard.press('0');
    await waitForText(page, 'You press 0.', '[data-testid=transcript]');
    await press(page, 'Skip to what comes next');
    await waitForText(page, 'One moment, I am connecting you.', '[data-testid=transcript]');
    for (let i = 0; i < 6 && !(await page.$('[aria-label="Who answers"]')); i++) {
      await press(page, 'Skip to what comes next');
      await new Promise((done) => setTimeout(done, 150));
    }
    await waitForText(page, 'North Quay reception', '[aria-label="Who answers"]');
    expect(page.url()).toContain('did=k0');
    await press(page, 'Is busy');
    await waitForText(page, /mailbox of North Quay reception/i, '[data-testid=transcript]');
    // Its address is the call: another person sees the same.
    const other = await signedIn(browser, ...ADMIN);
    await other.goto(page.url(), { waitUntil: 'networkidle0' });
    await waitForText(other, 'You press 0.', '[data-testid=transcript]');
    await other.close();
  });

  it('is kept as a test, which names the edit that breaks it', async () => {
    await visit(page, `${call}&did=k3:2`);
    await page.type('[aria-label="Name of the test"]', 'Freight by key 2');
    await press(page, 'Keep as a test');
    await waitForText(page, 'Kept as tests: all go as they went'.toUpperCase(), '[data-testid=kept-rehearsals] h2');
    const row = '[data-testid=kept-rehearsal]';
    await waitForText(page, 'Freight, second level, then 4000 Freight desk', row);
    const found = (await plan()).attendantKeys.find(
      (k) => k.attendant === 'main-attendant' && k.mode === 'open' && k.key === '2',
    ) as Key & { id: string };
    // First an edit that has nothing to do with it, then the one that breaks it, then another.
    const edit = async (kind: string, object: Record<string, unknown>, more: object) =>
      boss.post('/edits', {
        edits: [
          {
            kind,
            id: object.id,
            rowVersion: await rowVersion(kind === 'extension' ? kind : 'attendant_key', String(object.id)),
            value: { ...object, ...more },
          },
        ],
      });
    const e2104 = (await objectIn(boss, 'draft', 'extensions', 'e-2104')) as Record<string, unknown>;
    expect((await edit('extension', e2104, { note: 'nothing to do with it' })).status).toBe(200);
    expect((await edit('attendantKey', found as never, { leadsTo: 'e-2104' })).status).toBe(200);
    expect((await edit('extension', { ...e2104, note: 'nothing to do with it' }, { note: 'nor this' })).status).toBe(
      200,
    );
    await visit(page, '/rehearsal');
    await waitForText(page, 'Since Farida Okonjo changed “Leads to” of', row);
    await waitForText(page, 'Now: 2104', row);
    await visit(page, '/');
    await waitForText(page, 'Freight by key 2 goes otherwise since Farida Okonjo', '[data-testid=broken-rehearsals]');
    await visit(page, '/rehearsal');
    await waitForText(page, 'Now: 2104', row);
    await press(page, 'Keep no longer');
    await page.waitForFunction(() => !document.querySelector('[data-testid=kept-rehearsal]'));
    for (let i = 0; i < 3; i++) await boss.post('/edits/undo');
  });

  it('hears the storm notice, while it holds', async () => {
    const set = await boss.post<{ id: string }>('/notices', {
      of: { kind: 'attendant', id: 'main-attendant' },
      reason: 'Storm',
      open: false,
      until: new Date(Date.now() + 3_600_000).toISOString(),
    });
    expect(set.status).toBe(200);
    await visit(page, call.replace('fri%2010:00', 'now'));
    await waitForText(page, 'Because of the storm our terminals are closed tonight', '[data-testid=transcript]');
    await boss.delete(`/notices/${set.body.id}`);
    expect(await transcript()).toContain('notice');
  });

  it('without anything to call it says what it is for', async () => {
    await visit(page, '/rehearsal');
    await waitForText(page, 'Say who calls, which number or extension');
    await fill(page, '#rehearsal-dial', '2104');
  });
});
