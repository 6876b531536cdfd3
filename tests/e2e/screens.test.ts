import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { ADMIN, HELPDESK, fill, openBrowser, press, signedIn, visit, waitForText, unfold } from '../support/browser';

jest.setTimeout(120_000);
let browser: Browser;
let page: Page;
beforeAll(async () => {
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
});
afterAll(() => browser.close());

const text = (selector: string) => page.$eval(selector, (e) => (e as HTMLElement).innerText);
const all = (selector: string) =>
  page.$$eval(selector, (es) => es.map((e) => (e as HTMLElement).innerText.replace(/\s+/g, ' ')));
/** Leaves the field and waits until nothing typed is left outside the draft. */
async function settle(): Promise<void> {
  await page.keyboard.press('Tab');
  await page.waitForFunction(() => !document.body.innerText.includes('typed, not in the draft yet'));
}
const valueOf = (field: string) => page.$eval(`[data-field=${field}]`, (e) => (e as HTMLInputElement).value);

describe('adding and deleting from ledgers', () => {
  it('a mailbox: what is missing is said at the field, then its page opens', async () => {
    await visit(page, '/mailboxes');
    await press(page, 'Add mailbox');
    await page.type('#add-name', 'Petrel Gale');
    await page.keyboard.press('Enter');
    await waitForText(page, 'Site is not chosen yet.', '[role=form]');
    await page.select('#add-site', 'north-quay');
    await press(page, 'Add mailbox');
    await waitForText(page, 'Petrel Gale', 'h1');
    await waitForText(page, 'edited, not live yet');
    await press(page, 'Delete…');
    await waitForText(page, 'goes from the draft; live keeps it until you go live');
    await press(page, 'Delete Petrel Gale');
    await page.waitForFunction(() => location.pathname === '/mailboxes');
  });

  it('what others still point to is not deleted, and says who', async () => {
    await visit(page, '/classes/staff');
    await press(page, 'Delete…');
    await waitForText(page, 'things still point to class Staff');
    await press(page, 'Delete Staff');
    await waitForText(page, /extension 2\d{3} .* still refer to class Staff; change them first/);
  });

  it('a new outbound rule is proposed above the broader one, and moves', async () => {
    await visit(page, '/outbound?ladder=out-tidewren');
    await press(page, 'Add rule');
    await page.type('#add-name', 'Mainland');
    await page.type('#add-map', '901632x{6}');
    await press(page, 'Add outbound rule');
    await waitForText(page, 'Mainland', 'h1');
    await visit(page, '/outbound?ladder=out-tidewren');
    const names = async () => (await all('[data-testid=rung] a')).filter((t) => t.length > 1);
    expect(await names()).toEqual(['Freephone', 'Mainland', 'National and mobile', 'International']);
    await page.click('[aria-label="Move Mainland down"]');
    await page.waitForFunction(
      () => [...document.querySelectorAll('[data-testid=rung] a')][2]?.textContent === 'Mainland',
    );
    await waitForText(page, /nothing: rule 2 takes all of it/, '[data-testid=rung]');
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await page.waitForFunction(() => document.querySelectorAll('[data-testid=rung]').length === 3, { timeout: 60_000 });
  });

  it('an inbound route for one number is led above the map that holds it', async () => {
    await visit(page, '/inbound');
    await press(page, 'Add inbound route');
    await page.type('#add-name', 'Crew line');
    await page.type('#add-calledMap', '+448081570107');
    await fill(page, '#add-leadsTo', '2110 Hanne Moreau');
    await press(page, 'Add inbound route');
    await waitForText(page, 'Crew line', 'h1');
    await waitForText(page, '2110 Hanne Moreau', 'aside');
    await page.waitForSelector('[data-testid=course]');
    await visit(page, '/inbound');
    const routes = await all('[data-testid=route]');
    expect(routes.findIndex((r) => r.includes('Crew line'))).toBeLessThan(
      routes.findIndex((r) => r.includes('Bookings freephone')),
    );
    expect(routes.find((r) => r.includes('Hamburg yard'))).toContain('none of our numbers fits: never reached');
  });
});

describe('editing', () => {
  it('a trunk: channels drawn as typed, a bad value stays beside its reason', async () => {
    await visit(page, '/trunks/sundvik');
    await fill(page, '[data-field=channels]', '12');
    await settle();
    expect(await page.$$eval('[role=img][aria-label^="12 channels"]', (es) => es.length)).toBe(1);
    await fill(page, '[data-field=channels]', '0');
    await page.keyboard.press('Tab');
    await waitForText(page, 'Channels: at least 1 is allowed.');
    expect(await valueOf('channels')).toBe('0');
    // What is no figure is not taken by the keys.
    await fill(page, '[data-field=channels]', 'm9any');
    expect(await valueOf('channels')).toBe('9');
    await fill(page, '[data-field=channels]', '10');
    await settle();
  });

  it('the note of the field stands in the pane while the field has the focus', async () => {
    await visit(page, '/trunks/sundvik');
    await page.focus('[data-field=keptForIncoming]');
    await page.waitForSelector('[data-testid=field-note]');
    expect(await text('[data-testid=field-note]')).toMatch(/Channels that outgoing calls leave free\. Example: 4/);
    await unfold(page, 'Forwarded and transferred calls');
    await page.focus('[data-field=transit]');
    await waitForText(page, 'it is how toll fraud works', '[data-testid=field-note]');
  });

  it('a class: one tick is one edit, and the pane says which calls it changes', async () => {
    await visit(page, '/classes/quay-phone');
    await page.click('[aria-label="national: May call"]');
    await waitForText(page, 'edited, not live yet');
    await waitForText(page, /[0-9]+ phones?, always, such as [0-9]+ calls [0-9]+/, 'aside');
    expect(await text('aside')).toMatch(/rejected \(cause 21/);
    await page.click('[aria-label="national: May call"]');
    await waitForText(page, 'Not edited: live has it as it stands here.', 'aside');
  });

  it('a number is given to an extension by typing its digits', async () => {
    await visit(page, '/numbers/n-441632960156');
    const stands = () => page.$eval('[data-field=belongsTo]', (e) => Math.round(e.getBoundingClientRect().top));
    await fill(page, '[data-field=belongsTo]', '2112 Leila Sandoval');
    const before = await stands();
    await page.keyboard.press('Tab');
    await waitForText(page, '2112 Leila Sandoval', 'aside');
    // The course and the week above it have grown meanwhile: what is typed into stands where it stood.
    await waitForText(page, '2112 Leila Sandoval', '[data-testid=course]');
    expect(await stands()).toBe(before);
    await fill(page, '[data-field=belongsTo]', 'nobody at all');
    await waitForText(page, 'Nothing is called “nobody at all”');
    await page.keyboard.press('Escape');
    await visit(page, '/extensions/e-2112');
    await waitForText(page, '+44 1632 960156');
  });

  it('the emergency list of a site is ordered with buttons', async () => {
    await visit(page, '/sites/tidewren');
    const list = () => page.$$eval('[aria-label^="Take "]', (bs) => bs.map((b) => b.getAttribute('aria-label')));
    await page.select('select[aria-label="Add to Emergency trunks"]', 'kestrel');
    await page.waitForFunction(() => document.querySelector('[aria-label="Take Kestrel Voice out"]'));
    expect((await list()).slice(0, 3)).toEqual(
      expect.arrayContaining(['Take Tidewren gateway out', 'Take Kestrel Voice out']),
    );
    await page.click('[aria-label="Move Kestrel Voice up"]');
    await page.waitForFunction(
      () => document.querySelector('[aria-label="Move Kestrel Voice up"]')?.getAttribute('aria-disabled') === 'true',
    );
    await page.click('[aria-label="Take Kestrel Voice out"]');
    await page.waitForFunction(() => !document.querySelector('[aria-label="Take Kestrel Voice out"]'));
  });
});

describe('what acts at once', () => {
  it('help desk sets a PIN and forwarding, and is offered no edit', async () => {
    const desk = await signedIn(browser, ...HELPDESK);
    await visit(desk, '/extensions/e-2111');
    expect(await desk.$eval('[data-field=name]', (e) => (e as HTMLInputElement).disabled)).toBe(true);
    await desk.type('#pin', '2111');
    await waitForText(desk, 'The PIN is the extension');
    await fill(desk, '#pin', '480216');
    await press(desk, 'Set PIN now');
    await waitForText(desk, 'The new PIN works now.');
    await desk.select('#forward-when', 'busy');
    await desk.type('#forward-to', '21 01');
    await press(desk, 'Forward now');
    await waitForText(desk, /when busy goes to 2101 since/);
    await visit(desk, '/');
    await waitForText(desk, /2111 Obinna Oduya busy to 2101/, 'aside');
    await visit(desk, '/extensions/e-2111');
    await press(desk, 'End it now');
    await waitForText(desk, 'Nothing is forwarded.');
    await desk.close();
  });
});

describe('going live and back', () => {
  it('undoes one edit, shows a revision against another, and brings one back', async () => {
    await visit(page, '/go-live');
    const before = (await all('[data-testid=act]')).length;
    await page.click('[aria-label^="Undo:"][aria-label$="+44 1632 960156"]');
    await page.waitForFunction(
      (n: number) => document.querySelectorAll('[data-testid=act]').length === n - 1,
      {},
      before,
    );
    await visit(page, '/revisions/2');
    await waitForText(page, 'from revision 1 to revision 2');
    await page.select('[aria-label="Compare with"]', 'draft');
    await waitForText(page, 'from revision 2 to the draft');
    await press(page, 'Bring back as draft…');
    await waitForText(page, 'Live does not change until you go live');
    await press(page, 'Leave the draft as it is');
  });

  it('settings: a token is shown once and can be revoked; the theme changes at once', async () => {
    await visit(page, '/settings');
    await page.type('#token-name', 'from the browser');
    await press(page, 'Make token');
    await page.waitForSelector('[data-testid=token]');
    expect(await text('[data-testid=token]')).toMatch(/^pd_[\w-]{43}$/);
    await page.reload({ waitUntil: 'networkidle0' });
    expect(await page.$('[data-testid=token]')).toBeNull();
    await press(page, 'Revoke');
    await waitForText(page, /revoked \d+ \w+ \d{4}/);
    await press(page, 'dark');
    await page.waitForFunction(() => document.documentElement.classList.contains('dark'));
    await press(page, 'light');
    await page.waitForFunction(() => !document.documentElement.classList.contains('dark'));
  });
});

describe('forms that act at once', () => {
  it.each([
    ['/administrators', '#admin-name', 'Half Typed', 'New administrator'],
    ['/settings', '#token-name', 'half a token', 'New API token'],
    ['/settings', '#limit-queues', '12', 'Limits of the organisation'],
    ['/extensions/e-2111', '#forward-to', '2105', 'Forwarding'],
  ])('%s: what is typed into %s stays when the page is left, and Today names it', async (path, field, text, title) => {
    await visit(page, path);
    await page.type(field, text);
    await visit(page, '/');
    await waitForText(page, title);
    await visit(page, path);
    await page.waitForFunction(
      (f: string, t: string) => (document.querySelector(f) as HTMLInputElement).value === t,
      {},
      field,
      text,
    );
    // Taken away again, it is named no more.
    await page.click(field, { count: 3 });
    await page.keyboard.press('Backspace');
    await visit(page, '/');
    expect(await page.$eval('body', (e) => e.innerText)).not.toContain(title);
  });
});

describe('finding and asking', () => {
  it('finds by name, by digits and by number, and opens the first', async () => {
    for (const [wanted, label, path] of [
      ['ilse', '2102 Ilse Brandvik', '/extensions/e-2102'],
      ['2104', '2104 Amara', '/extensions/e-2104'],
      ['01632 960155', '+44 1632 960155', '/numbers/'],
      ['vastra', 'Västra Kajen', '/'],
    ] as const) {
      await visit(page, '/');
      await page.type('[data-testid=ask-line]', wanted);
      await waitForText(page, label, '#ask-answers');
      await page.keyboard.press('Enter');
      await page.waitForFunction((p: string) => location.pathname.startsWith(p) && location.pathname !== '/', {}, path);
    }
  });

  it('Tab asks as the phone that is found; nonsense is explained; the three fields do the same', async () => {
    await visit(page, '/');
    await page.type('[data-testid=ask-line]', 'ilse');
    await waitForText(page, 'Tab asks as this phone', '#ask-answers');
    await page.keyboard.press('Tab');
    await page.waitForFunction(
      () => (document.querySelector('[data-testid=ask-line]') as HTMLInputElement).value === '2102 > ',
    );
    await page.type('[data-testid=ask-line]', '12x');
    await waitForText(page, "can't be dialled", '#ask-answers');
    await page.click('[aria-label="Ask with three fields"]');
    await page.waitForSelector('#pick-from');
    await page.type('#pick-from', 'Ilse Brandvik');
    await page.type('#pick-dial', '112');
    await press(page, 'Trace this call');
    await waitForText(page, 'An emergency call from 2102 Ilse Brandvik to 112', 'h1');
  });

  it('arrow keys choose another one, a text is changed in its middle, Escape leaves it as it stands', async () => {
    await visit(page, '/');
    await page.keyboard.press('/');
    await page.keyboard.type('21');
    // What "2" found stood there first, and begins with another one; arrows choose from what is seen.
    await page.waitForFunction(() =>
      document.querySelector<HTMLElement>('#ask-answers [role=option]')?.innerText.startsWith('2101'),
    );
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowDown');
    await page.waitForFunction(() => {
      const at = document.querySelector('[data-testid=ask-line]')!.getAttribute('aria-activedescendant');
      return at !== null && document.getElementById(at)?.textContent?.startsWith('2103');
    });
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => location.pathname === '/extensions/e-2103');
    await visit(page, '/');
    await page.keyboard.press('/');
    await page.keyboard.type('2104 > 11');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => document.activeElement === document.body);
    expect(await page.$('#ask-answers')).toBeNull();
    await page.focus('[data-testid=ask-line]');
    for (let i = 0; i < 5; i++) await page.keyboard.press(i === 0 ? 'Home' : 'ArrowRight');
    await page.keyboard.type('x5');
    expect(await page.$eval('[data-testid=ask-line]', (e) => (e as HTMLInputElement).value)).toBe('2104x5 > 11');
  });

  it('three fields without a caller say so at the field that lacks it', async () => {
    await visit(page, '/');
    await page.click('[aria-label="Ask with three fields"]');
    await page.waitForSelector('#pick-dial');
    await page.type('#pick-dial', '112');
    await page.keyboard.press('Enter');
    await waitForText(page, 'Say who calls.', '#pick-from-error');
    await page.waitForFunction(() => document.activeElement?.id === 'pick-from');
    await page.keyboard.type('2104');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => location.search === '?from=2104&dial=112&at=now');
  });

  it('says plainly what is not there', async () => {
    await page.goto(page.url().replace(/\/trace.*/, '/extensions/e-0000'), { waitUntil: 'networkidle0' });
    await waitForText(page, 'The draft has no such thing');
    await visit(page, '/trace?from=9999&dial=1');
    await waitForText(page, 'No extension has the digits 9999.');
    await page.keyboard.press('?');
    await waitForText(page, 'undo my last edit of the draft', '[role=dialog]');
    await page.keyboard.press('Escape');
    expect(await page.$('[role=dialog]')).toBeNull();
  });
});

describe('the link of a site', () => {
  it('says how many calls a budget carries while it is typed', async () => {
    await visit(page, '/sites/larkspur');
    await waitForText(page, 'The link is not limited', '[data-testid=link-calls]');
    await page.type('::-p-aria(Link budget)', '175');
    await waitForText(page, '175 kbit/s carry 2 calls with G.711A at 87.2 kbit/s each', '[data-testid=link-calls]');
    await page.select('::-p-aria(Link layer)', 'none');
    await waitForText(page, '7 calls with G.729 at 24.0', '[data-testid=link-calls]');
  });
});
