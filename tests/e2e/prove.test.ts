import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, ElementHandle, HTTPRequest, Page } from 'puppeteer-core';
import { admin, objectIn, type Client } from '../support/api';
import { ADMIN, openBrowser, press, signedIn, visit, waitForText } from '../support/browser';

/* What is promised, what an edit moves, what breaks: found, understood and mended by hand. */

jest.setTimeout(180_000);

let browser: Browser;
let page: Page;
let boss: Client;

beforeAll(async () => {
  browser = await openBrowser();
  boss = await admin();
  page = await signedIn(browser, ...ADMIN);
});
afterAll(() => browser.close());

const inMain = '[data-testid=verdict]';

describe('a promise', () => {
  it('is made, found broken with a call that opens as a trace, stands against going live, is mended', async () => {
    await visit(page, '/promises');
    await press(page, 'Add promise');
    await page.waitForSelector('#add-name');
    await page.type('#add-name', 'Staff never call mobiles');
    await press(page, 'Add promise');
    await page.waitForSelector(inMain);
    const id = new URL(page.url()).pathname.split('/').at(-1)!;
    await page.select('[aria-label="Add a kind of call"]', 'mobile');
    await waitForText(page, 'Each mobile call from any phone never reaches the outside.', '[data-testid=sentence]');
    await waitForText(page, /Broken in the draft\. It reaches .* \(the outside\)\./, inMain);
    await page.evaluate(() => {
      const box = document.querySelector<HTMLInputElement>('[data-field=firm]')!;
      box.click();
    });
    await page.waitForFunction(() => document.querySelector<HTMLInputElement>('[data-field=firm]')?.checked);
    // The call that breaks it, as a trace.
    const call = await page.$eval(`${inMain} a`, (a) => (a as HTMLAnchorElement).getAttribute('href')!);
    await visit(page, call);
    await page.waitForSelector('[data-testid=steps]');
    await waitForText(page, /carries the call/, '[data-testid=steps]');
    await visit(page, '/go-live');
    await waitForText(page, 'The firm promise “Staff never call mobiles” would be broken.', '[data-testid=gate]');
    await waitForText(page, 'Staff never call mobiles', '[data-testid=calls-that-change] ~ div');
    await page.click('[data-testid=gate] a[aria-label*="Staff never call mobiles"]');
    await page.waitForSelector(inMain);
    await page.click('[aria-label="Take mobile out"]');
    await page.select('[aria-label="Add a kind of call"]', 'satellite');
    await waitForText(page, 'Each satellite or global call from any phone', '[data-testid=sentence]');
    await waitForText(page, /Holds in the draft: [0-9]+ ways? of calls|Broken/, inMain);
    expect(await objectIn(boss, 'draft', 'promises', id)).toMatchObject({ firm: true, dialKinds: ['satellite'] });
    await boss.post('/edits/undo', { kind: 'promise', id });
  });

  it('that is ready made is added by one press', async () => {
    await visit(page, '/promises');
    await page.click('[aria-label="Add “Premium numbers are called by nobody”"]');
    await page.waitForFunction(
      () => !document.querySelector('[aria-label="Add “Premium numbers are called by nobody”"]'),
    );
    await waitForText(page, 'Premium numbers are called by nobody', '[role=grid], [role=table], main');
    await boss.post('/edits/undo');
  });
});

describe('impact', () => {
  it('names the calls that an edit moves and opens one as a trace', async () => {
    await boss.post('/edits', { edits: [{ kind: 'extension', id: 'e-2112', set: { ringSeconds: 57 }, seen: {} }] });
    await visit(page, '/impact');
    await waitForText(page, 'extension 2112', '[data-testid=groups]');
    await page.click('::-p-xpath(//*[@data-testid="groups"]//tr[contains(., "extension 2112")]//a)');
    // Both traces side by side, what differs marked.
    await page.waitForSelector('section[aria-label="In live"]');
    await waitForText(page, 'rings for 57 s', 'section[aria-label="In draft"] [data-differs]');
    await waitForText(page, 'It goes otherwise.');
    await waitForText(page, /kinds? of calls change/, '[data-testid=effect]');
    await boss.post('/edits/undo', { kind: 'extension', id: 'e-2112' });
    await visit(page, '/impact?from=draft&to=draft');
    await waitForText(page, 'There is no difference between the draft plan and the draft plan.');
  });
});

describe('what takes long', () => {
  it('says how far it is, is stopped, and asked again', async () => {
    let held = true;
    const hold = (request: HTTPRequest) => {
      const path = new URL(request.url()).pathname;
      if (path.startsWith('/api/v1/progress/'))
        void request.respond({ status: 200, contentType: 'application/json', body: '{"share":0.4}' });
      // It is not answered while it is held.
      else if (path !== '/api/v1/impact' || !held) void request.continue();
    };
    await page.setRequestInterception(true);
    page.on('request', hold);
    try {
      const address = new URL('/impact?from=1&to=draft', page.url()).href;
      await page.goto(address, { waitUntil: 'domcontentloaded' });
      await page.waitForSelector('[data-testid=long-wait] [aria-valuenow="40"]');
      await press(page, 'Stop');
      await waitForText(page, 'Stopped.');
      held = false;
      await press(page, 'Ask again');
      await page.waitForFunction(() => !document.querySelector('[role=progressbar]'));
      await page.waitForFunction(() => !document.body.innerText.includes('Stopped.'));
      await page.waitForSelector('[data-testid=groups], [aria-busy=false]');
    } finally {
      page.off('request', hold);
      await page.setRequestInterception(false);
    }
  });
});

describe('another plan', () => {
  it('is asked by choice on traces, courses and weeks', async () => {
    await visit(page, '/trace?from=2105&dial=2106');
    await page.waitForSelector('[aria-label="In which plan"]');
    await page.focus('[aria-label="In which plan"]');
    await page.waitForSelector('[aria-label="In which plan"] option[value="1"]');
    await page.select('[aria-label="In which plan"]', '1');
    await page.waitForFunction(() => new URLSearchParams(location.search).get('of') === '1');
    await page.waitForSelector('[data-testid=steps]');
    await visit(page, '/numbers/n-46313900600');
    await page.waitForSelector('[data-testid=picture] [data-testid=course]');
    await page.select('[aria-label="Course and week in which plan"]', 'live');
    await page.waitForSelector('[data-testid=week-strip] [aria-label="as it is live"]');
    await page.waitForSelector('[data-testid=picture] [data-testid=course]');
  });
});

describe('two atlases', () => {
  it('are laid over one another by choosing another phone', async () => {
    await visit(page, '/atlas?phone=2104');
    await page.waitForSelector('[data-testid=atlas-hours] a');
    await press(page, 'Compare…');
    await page.waitForSelector('#atlas-withPhone');
    await page.type('#atlas-withPhone', '2105');
    await press(page, 'Compare');
    await page.waitForSelector('[data-testid=apart] tbody tr');
    expect(new URL(page.url()).searchParams.get('withPhone')).toBe('2105');
    await press(page, 'One phone only');
    await page.waitForSelector('[data-testid=regions]');
  });
});

describe('a call-flow book', () => {
  it('is opened from its site, read chapter by chapter, and made for paper', async () => {
    await visit(page, '/sites/vastra-kajen');
    await page.click('a[href="/book?site=vastra-kajen"]');
    await page.waitForSelector('[data-testid=chapter] [data-testid=course]');
    await waitForText(page, 'Mondays to Fridays 08:00 to 17:00', '[data-testid=chapter]');
    await page.waitForSelector('section[aria-label="Numbers that ring a phone directly"] dt');
    await page.emulateMediaType('print');
    expect(await page.$eval('nav', (e) => getComputedStyle(e).display)).toBe('none');
    await page.emulateMediaType('screen');
  });
});

describe('a drill', () => {
  it('finds the site whose emergency list has one trunk, and the calls that change', async () => {
    await visit(page, '/drills');
    await waitForText(page, 'no 112 or 110 from Freight Hamburg', '[data-testid=groups]');
    await page.waitForFunction(
      () => !document.querySelector('[data-testid=groups]')!.textContent.includes('not drilled'),
    );
    await page.click('[aria-label="Calls that change without Elbkontor"]');
    await page.waitForSelector('[data-testid=groups] [data-testid=groups] a');
    await waitForText(page, /the busy hour begins at [0-9:]+/);
    await waitForText(page, 'enough for the busy hour', '[data-testid=groups]');
    await waitForText(page, '0 of 30 at Freight Hamburg', '[data-testid=groups]');
    await waitForText(page, 'all calls in the busy hour find none', '[data-testid=groups]');
  });
});

describe('a trace', () => {
  it('goes on with what is assumed of where it came to, kept in the address', async () => {
    await visit(page, '/trace?from=2105&dial=2106');
    await waitForText(page, 'busy', '[data-testid=situation]');
    await page.click('::-p-xpath(//*[@data-testid="situation"]//a[.="busy"])');
    await page.waitForSelector('[aria-label^="No longer assume that 2106"]');
    expect(JSON.parse(new URL(page.url()).searchParams.get('with')!)).toEqual({ busy: ['e-2106'] });
    await waitForText(page, 'is on another call', '[data-testid=steps]');
    await page.click('[aria-label^="No longer assume that 2106"]');
    await page.waitForFunction(() => !document.querySelector('[aria-label^="No longer assume"]'));
  });
});

describe('problems', () => {
  it('are counted at the rail, mended by a press, and left as they are with a reason', async () => {
    await visit(page, '/problems');
    await waitForText(page, 'Sweden mobile can never fit', '[data-testid=problems]');
    await page.waitForFunction(() => /Problems\s*\d/.test(document.querySelector('nav')!.textContent));
    await page.click('[aria-label^="Delete it: outbound rule Sweden mobile"]');
    await page.waitForFunction(
      () => !document.querySelector('[data-testid=problems]')!.textContent.includes('Sweden mobile can never fit'),
    );
    await boss.post('/edits/undo');
    await visit(page, '/problems');
    await page.click('[aria-label^="Leave it as it is: mailbox Lost property"]');
    await page.waitForSelector('[data-testid=mute] input');
    await page.type('[data-testid=mute] input', 'The front desk listens to it');
    await page.click('[data-testid=mute] button[type=submit]');
    await page.waitForFunction(
      () => !document.querySelector('[data-testid=problems]')!.textContent.includes('Lost property'),
    );
    await visit(page, '/problems?muted=true');
    await waitForText(page, 'The front desk listens to it', '[data-testid=problems]');
    await page.click('[aria-label^="Count it again: mailbox Lost property"]');
    await waitForText(page, 'None is left as it is.');
  });

  it('are walked by one key', async () => {
    await visit(page, '/problems');
    await waitForText(page, 'Sweden mobile can never fit', '[data-testid=problems]');
    await page.keyboard.press('.');
    await page.waitForFunction(() => location.pathname !== '/problems');
    const first = new URL(page.url()).pathname;
    await waitForText(page, '1 of');
    await page.keyboard.press('.');
    await page.waitForFunction((path: string) => location.pathname !== path, {}, first);
  });
});

describe('what must stay so', () => {
  it('is promised from a trace by a press', async () => {
    await visit(page, '/trace?from=2105&dial=2106');
    await page.waitForSelector('[data-testid=steps]');
    await page.click('[aria-label="This must stay so: this call"]');
    await page.waitForSelector('main a[href^="/promises/"]');
    await page.click('main a[href^="/promises/"]');
    await waitForText(page, 'Holds in the draft', inMain);
    await boss.post('/edits/undo');
  });
});

describe('reach', () => {
  it('is shown of an hour of the week, and as a ledger', async () => {
    await visit(page, '/reach');
    await page.waitForSelector('[data-testid=reach] tbody tr');
    await page.select('[aria-label=Weekday]', '6');
    await page.select('[aria-label="Hour of the day"]', '3');
    await press(page, 'ledger');
    await page.waitForSelector('[data-testid=groups] tbody tr [role=img]');
  });

  it('unfolds to places, and back to who can end up there', async () => {
    await visit(page, '/reach');
    await page.waitForSelector('[data-testid=reach] button');
    await page.click('[data-testid=reach] button');
    await page.waitForSelector('[data-testid=groups] a[href^="/reach?to="]');
    await page.click('[data-testid=groups] a[href^="/reach?to="]');
    await waitForText(page, 'Who can end up at');
    await page.waitForSelector('[data-testid=groups] a');
  });
});

describe('going live', () => {
  it('leaves edits for later, says what is left, and asks when', async () => {
    const rings = (id: string, ringSeconds: number) =>
      boss.post('/edits', { edits: [{ kind: 'extension', id, set: { ringSeconds }, seen: {} }] });
    await rings('e-2113', 58);
    await rings('e-2112', 57);
    await visit(page, '/go-live');
    const edits = () =>
      page.$eval('[data-testid=go-live]', (e) => Number(/with (\d+) edit/.exec(e.textContent)?.[1] ?? '0'));
    await page.waitForSelector('[data-testid=go-live]');
    const all = await edits();
    await page.click('[aria-label^="Leave for later: changed “Rings for” of 2112"]');
    await waitForText(page, '2112', '[data-testid=left-for-later]');
    await page.waitForFunction(
      (n: number) => {
        const said = document.querySelector('[data-testid=go-live]')?.textContent ?? '';
        return Number(/with (\d+) edit/.exec(said)?.[1] ?? n) < n;
      },
      {},
      all,
    );
    await press(page, 'At a time…');
    await page.waitForSelector('[data-testid=plan-going] input[type="datetime-local"]');
    await page.click('[data-testid=plan-it]');
    await waitForText(page, 'Say when.', '[data-testid=plan-going]');
    await press(page, 'Take everything along');
    await page.waitForFunction(() => !document.querySelector('[data-testid=left-for-later]'));
    await boss.post('/edits/undo', { kind: 'extension', id: 'e-2112' });
    await boss.post('/edits/undo', { kind: 'extension', id: 'e-2113' });
  });
});

describe('the plan as a text', () => {
  it('is taken in only after it has said what it would change', async () => {
    await visit(page, '/plan-text');
    const plan = (await boss.get<{ extensions: { id: string; ringSeconds: number }[] }>('/plan')).body;
    plan.extensions.find((e) => e.id === 'e-2112')!.ringSeconds = 57;
    const file = join(mkdtempSync(join(tmpdir(), 'polydrome-plan-')), 'plan.json');
    writeFileSync(file, JSON.stringify(plan));
    const box = await page.$('#plan-file');
    await (box as ElementHandle<HTMLInputElement>).uploadFile(file);
    await waitForText(page, /1 object would differ, and \d+ groups? of calls/, '[data-testid=plan-told]');
    await press(page, 'Take it into the draft');
    await waitForText(page, 'It is in the draft', '[data-testid=plan-told]');
    await boss.post('/edits/undo');
  });
});
