import type { Page } from 'puppeteer-core';

/** A hand that counts: clicks, keys, and pages that came. */
export class Hand {
  clicks = 0;
  /** fields and buttons that were thought of */
  thoughts = 0;
  keys = 0;
  pages = 0;
  constructor(readonly page: Page) {
    page.on('framenavigated', (frame) => {
      if (frame === page.mainFrame()) this.pages++;
    });
  }

  /** `begins`: the button says more than that. */
  async press(text: string, begins = false): Promise<void> {
    const is = begins ? `starts-with(normalize-space(.), "${text}")` : `normalize-space(.)="${text}"`;
    const found = await this.page.waitForSelector(
      `::-p-xpath(//main//button[${is}] | //main//a[${is}] | //aside//button[${is}])`,
      { timeout: 60_000 },
    );
    await this.still();
    await found!.click();
    this.clicks++;
    this.thoughts++;
  }

  async into(selector: string, text: string): Promise<void> {
    await this.page.waitForSelector(selector);
    await this.still();
    await this.page.click(selector);
    this.clicks++;
    this.thoughts++;
    // A person sees whether the field is the one that they meant.
    const isThere = () => this.page.$eval(selector, (e) => e === document.activeElement);
    for (let i = 0; i < 5 && !(await isThere()); i++) {
      await this.still();
      await this.page.click(selector);
    }
    await this.page.keyboard.type(text);
    this.keys += text.length;
  }

  /** A person looks before they click: what is still moving is waited for. */
  private async still(): Promise<void> {
    const height = () => this.page.evaluate(() => document.querySelector('main')?.scrollHeight ?? 0);
    for (let before = -1, now = await height(); before !== now; now = await height()) {
      before = now;
      await new Promise((done) => setTimeout(done, 150));
    }
  }

  /** Chooses of a plain list: opened, looked at, clicked. */
  async choose(selector: string, label: string): Promise<void> {
    await this.page.waitForSelector(selector);
    const value = await this.page.$eval(
      selector,
      (e, text) => [...(e as HTMLSelectElement).options].find((o) => o.text.includes(text))?.value ?? null,
      label,
    );
    if (value === null) throw new Error(`${selector} has no ${label}`);
    await this.page.select(selector, value);
    this.clicks += 2;
    this.thoughts++;
  }

  /** Chooses by typing into a box that lists what fits. */
  async find(selector: string, text: string): Promise<void> {
    await this.page.waitForSelector(selector);
    // Three clicks choose what stands there: it is typed over.
    await this.still();
    await this.page.click(selector, { count: 3 });
    this.clicks++;
    this.thoughts++;
    await this.page.keyboard.type(text);
    this.keys += text.length;
    try {
      await this.page.waitForFunction(
        (t: string) =>
          [...document.querySelectorAll('[role=option]')].some(
            (o) => o.checkVisibility() && (o as HTMLElement).innerText.toLowerCase().includes(t.toLowerCase()),
          ),
        {},
        text,
      );
    } catch (error) {
      throw new Error(`${selector} lists no ${text}: ${await this.standing(selector)}`, { cause: error });
    }
    await this.key('Enter');
  }

  /** What stands in a box, which one has the focus, and what is listed. */
  private standing(selector: string): Promise<string> {
    return this.page.evaluate((s: string) => {
      const listed = [...document.querySelectorAll('[role=option]')].map((o) => o.textContent);
      return `it holds “${document.querySelector<HTMLInputElement>(s)?.value}”, #${document.activeElement?.id} has the focus, listed: ${listed.join(', ') || 'nothing'}`;
    }, selector);
  }

  async key(name: 'Enter' | 'ArrowDown' | 'Tab'): Promise<void> {
    await this.page.keyboard.press(name);
    this.keys++;
  }

  /** What was copied elsewhere is pasted with two keys. */
  async paste(selector: string, text: string): Promise<void> {
    await this.page.click(selector);
    this.clicks++;
    await this.page.$eval(
      selector,
      (e, t) => {
        (e as HTMLTextAreaElement).focus();
        document.execCommand('insertText', false, t);
      },
      text,
    );
    this.keys += 2;
  }

  /** Back to Today by the name at the top. */
  async today(): Promise<void> {
    await this.page.click('header a[href="/"]');
    this.clicks++;
    await this.page.waitForSelector('[data-testid=order-of-work]', { timeout: 60_000 });
  }

  async done(step: string): Promise<void> {
    await this.page.waitForSelector(`[data-step=${step}][data-done=true]`, { timeout: 60_000 });
  }

  /**
   * What it would take a practised person, in minutes, by the keystroke-level model (Card, Moran and Newell 1980): 0.2 s a key,
   * 1.2 s a click with its way there, 1.35 s of thought before each field or button. The machine's own time comes on top.
   */
  minutes(): number {
    return (this.keys * 0.2 + this.clicks * 1.2 + this.thoughts * 1.35) / 60;
  }
}
