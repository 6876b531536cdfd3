import { mkdirSync } from 'node:fs';
import { ADMIN, openBrowser, signedIn, visit } from './browser';
async function main() {
  const [theme = 'light', width = '1280', ...paths] = process.argv.slice(2);
  mkdirSync('/tmp/look', { recursive: true });
  const browser = await openBrowser();
  const page = await signedIn(browser, ...ADMIN, theme as 'light', { width: Number(width), height: 800 });
  page.on('pageerror', (e) => console.log('ERR', String(e).slice(0, 300)));
  for (const p of paths) {
    try {
      await visit(page, p);
    } catch (e) {
      console.log(p, String(e).slice(0, 200));
    }
    await page.screenshot({ path: `/tmp/look/${p.replace(/[^a-z0-9]+/gi, '_')}.png` as `${string}.png` });
    console.log(p);
  }
  await browser.close();
}
void main();
