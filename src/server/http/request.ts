import { Refused } from '../access/rights';

/** Where the front tells the pages which address they are asked under; whatever a client sends there is overwritten. */
export const ASKED_HEADER = 'x-polydrome-asked';

/** The client's address; the application listens on loopback, so only a proxy that is trusted can say otherwise. */
export function addressOf(request: { headers: Headers }): string {
  const forwarded = process.env.POLYDROME_TRUST_PROXY === '1' ? request.headers.get('x-forwarded-for') : null;
  return forwarded?.split(',').at(-1)?.trim().slice(0, 45) || '127.0.0.1';
}

/** What a browser says of the page that a request comes from (Fetch Metadata; Origin for older browsers); null: it says nothing. */
export function cameFrom(request: Request): 'our own page' | 'elsewhere' | null {
  const site = request.headers.get('sec-fetch-site');
  if (site) return site === 'same-origin' ? 'our own page' : 'elsewhere';
  const origin = request.headers.get('origin');
  if (origin === null) return null;
  const same = URL.canParse(origin) && new URL(origin).host === request.headers.get('host');
  return same ? 'our own page' : 'elsewhere';
}

/** Throws 415 for a body that does not say that it is JSON: what a form of another page can send is none. */
export function demandJson(request: Request): void {
  const type = (request.headers.get('content-type') ?? '').split(';')[0]!.trim().toLowerCase();
  if (type !== 'application/json')
    throw new Refused(415, 'not-json', 'The body is JSON: send it with Content-Type: application/json.');
}

/** The body as JSON, counted while it streams in, so that a large one is refused before it is held. */
export async function jsonBody(request: Request, most: number): Promise<unknown> {
  const body = await octets(request, most);
  try {
    return JSON.parse(body.toString('utf8') || '{}');
  } catch {
    throw new Refused(400, 'not-json', 'The body is no JSON.');
  }
}

export async function octets(request: Request, most: number): Promise<Buffer> {
  const tooLarge = () =>
    new Refused(413, 'too-large', `The body is larger than ${most / 1024 / 1024} MiB; send it in parts.`);
  if (Number(request.headers.get('content-length') ?? 0) > most) throw tooLarge();
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  while (reader) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.byteLength;
    if (size > most) {
      await reader.cancel();
      throw tooLarge();
    }
    chunks.push(value);
  }
  return Buffer.concat(chunks);
}
