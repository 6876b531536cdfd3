import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { simpleParser, type ParsedMail } from 'mailparser';

const folder = () => join(process.env.POLYDROME_DATA!, 'mail');

/** Mail that came to an address at the stand-in, the oldest first, as it is read by somebody else's parser. */
export async function mailTo(address: string): Promise<ParsedMail[]> {
  const names = readdirSync(folder())
    .filter((n) => n.endsWith('.eml'))
    .sort();
  const all = await Promise.all(names.map((n) => simpleParser(readFileSync(join(folder(), n)))));
  return all.filter((m) => [m.to ?? []].flat().some((t) => t.value.some((v) => v.address === address)));
}

/** Waits until one more mail than before has come to an address, and gives the last. */
export async function nextMail(address: string, before: number): Promise<ParsedMail> {
  for (let i = 0; i < 200; i++) {
    const found = await mailTo(address);
    if (found.length > before) return found.at(-1)!;
    await new Promise((done) => setTimeout(done, 150));
  }
  throw new Error(`no mail came to ${address}`);
}
