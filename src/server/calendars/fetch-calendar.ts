import { lookup as lookUp, type LookupAddress } from 'node:dns';
import { request as overHttp, type IncomingMessage } from 'node:http';
import { request as overHttps } from 'node:https';
import { BlockList, isIP } from 'node:net';

/* Fetches a calendar from an address that an administrator named: bounded in time, size and redirects, and never from this machine. */

const MOST_BYTES = 2_000_000;
const MOST_REDIRECTS = 3;
const MOST_MS = 10_000;

export type Fetched = { ok: true; text: string } | { ok: false; why: string };

/** Addresses of this machine and of what stands beside it alone (RFC 6890): nobody else's calendar is there. */
const here = new BlockList();
here.addSubnet('127.0.0.0', 8);
here.addSubnet('0.0.0.0', 8);
here.addSubnet('169.254.0.0', 16);
here.addAddress('::1', 'ipv6');
here.addAddress('::', 'ipv6');
here.addSubnet('fe80::', 10, 'ipv6');

const isHere = (address: string) => {
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address)?.[1];
  return here.check(mapped ?? address, mapped || isIP(address) === 4 ? 'ipv4' : 'ipv6');
};

class Unwanted extends Error {}

/** Whether calendars of this machine may be read: for stand-ins only. */
const mayBeHere = () => process.env.POLYDROME_FEEDS_HERE === '1';

/** Looks a name up and refuses addresses of this machine; so a name can't be turned to another address after it was checked. */
function guarded(
  host: string,
  options: object,
  told: (e: Error | null, address: LookupAddress[] | string, family?: number) => void,
): void {
  lookUp(host, { ...options, all: true }, (e, found) => {
    if (e) return told(e, '');
    if (!mayBeHere() && found.some((a) => isHere(a.address)))
      return told(new Unwanted('it is an address of this machine'), '');
    if ((options as { all?: boolean }).all) told(null, found);
    else told(null, found[0]!.address, found[0]!.family);
  });
}

/** The text at an address (http, https, or webcal as https), or why there is none, in words. */
export async function fetchCalendar(address: string, within = MOST_MS): Promise<Fetched> {
  const over = AbortSignal.timeout(within);
  try {
    let at = new URL(address.replace(/^webcal:/i, 'https:'));
    for (let hops = 0; ; hops++) {
      if (at.protocol !== 'http:' && at.protocol !== 'https:') throw new Unwanted(`it leads to ${at.protocol} at last`);
      const host = at.hostname.replace(/^\[|\]$/g, '');
      if (isIP(host) !== 0 && !mayBeHere() && isHere(host)) throw new Unwanted('it is an address of this machine');
      const answer = await asked(at, over);
      const { statusCode: status = 0, headers } = answer;
      if (status >= 300 && status < 400 && headers.location) {
        answer.destroy();
        if (hops >= MOST_REDIRECTS) throw new Unwanted(`it leads on more than ${MOST_REDIRECTS} times`);
        at = new URL(headers.location, at);
        continue;
      }
      if (status !== 200) {
        answer.destroy();
        throw new Unwanted(`the far end answers ${status}`);
      }
      return { ok: true, text: await read(answer) };
    }
  } catch (e) {
    if (over.aborted) return { ok: false, why: `nothing came within ${within / 1000} seconds` };
    if (e instanceof Unwanted) return { ok: false, why: e.message };
    if (e instanceof TypeError) return { ok: false, why: 'it is no address' };
    const code = (e as NodeJS.ErrnoException).code ?? '';
    return { ok: false, why: WORDS[code] ?? `the connection failed${code ? ` (${code})` : ''}` };
  }
}

const WORDS: Readonly<Record<string, string>> = {
  ENOTFOUND: 'its name is not known',
  EAI_AGAIN: 'its name could not be looked up',
  ECONNREFUSED: 'nobody listens there',
  ECONNRESET: 'the far end broke off',
  EHOSTUNREACH: 'it can’t be reached',
  ENETUNREACH: 'it can’t be reached',
};

function asked(at: URL, signal: AbortSignal): Promise<IncomingMessage> {
  return new Promise((resolve, reject) => {
    const send = at.protocol === 'https:' ? overHttps : overHttp;
    const request = send(
      at,
      {
        signal,
        lookup: guarded as never,
        headers: {
          accept: 'text/calendar, text/plain;q=0.5',
          'accept-encoding': 'identity',
          'user-agent': 'Polydrome',
        },
        agent: false,
      },
      resolve,
    );
    request.on('error', reject);
    request.end();
  });
}

async function read(answer: IncomingMessage): Promise<string> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of answer as AsyncIterable<Buffer>) {
    size += part.length;
    if (size > MOST_BYTES) {
      answer.destroy();
      throw new Unwanted(`it is larger than ${MOST_BYTES / 1_000_000} MB`);
    }
    parts.push(part);
  }
  return Buffer.concat(parts).toString('utf8');
}
