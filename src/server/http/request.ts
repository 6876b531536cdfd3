import { Refused } from '../access/rights';

/** The client's address; the application listens on loopback, so only a proxy that is trusted can say otherwise. */
export function addressOf(request: { headers: Headers }): string {
  const forwarded = process.env.POLYDROME_TRUST_PROXY === '1' ? request.headers.get('x-forwarded-for') : null;
  return forwarded?.split(',').at(-1)?.trim().slice(0, 45) || '127.0.0.1';
}

/** Whether a request with a cookie was made by one of our pages (Fetch Metadata; Origin for older browsers). */
export function isOurOwnPage(request: Request): boolean {
  const site = request.headers.get('sec-fetch-site');
  if (site) return site === 'same-origin';
  const origin = request.headers.get('origin');
  return origin !== null && URL.canParse(origin) && new URL(origin).host === request.headers.get('host');
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
