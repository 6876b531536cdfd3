import type { z } from 'zod';
import { inputErrors, type InputError } from '@/core/plan';
import { sessionActor } from '../access/accounts';
import { Refused, demand, type Actor } from '../access/rights';
import { tokenActor } from '../access/tokens';
import { DatabaseGone } from '../db/pool';
import { EditRefused } from '../draft/edit';
import { log } from '../log';
import type { Operation } from './operation';

export const SESSION_COOKIE = 'polydrome_session';
const MOST_BODY_BYTES = 2 * 1024 * 1024;

interface Knock<Q, B> {
  actor: Actor;
  query: Q;
  body: B;
  /** the file that the body is, where the operation takes one */
  file: Buffer;
  params: Record<string, string>;
  address: string;
  request: Request;
}

type Handler<Q, B> = (knock: Knock<Q, B>) => Promise<unknown>;
type Context = { params: Promise<Record<string, string>> };

/**
 * A route of the API from its operation: finds out who asks, checks the right, parses query and body once, and turns every
 * refusal into status, path and sentence. What the handler gives becomes JSON, unless it is a Response.
 */
export function door<Q extends z.ZodType, B extends z.ZodType>(
  operation: Operation<Q, B>,
  handler: Handler<z.output<Q>, z.output<B>>,
): (request: Request, context: Context) => Promise<Response> {
  return async (request, context) => {
    try {
      const address = addressOf(request);
      // What needs no sign-in asks for none: a page that looks after our health is no sign of life of its reader.
      const actor = operation.right === null ? null : await actorOf(request, address);
      if (operation.right !== null && !actor)
        throw new Refused(401, 'not-signed-in', 'Sign in first, or send a bearer token.');
      if (actor?.mustChange && !(operation.path === '/account/password' || operation.path.startsWith('/session')))
        throw new Refused(403, 'must-change', 'Change the password that somebody else has given you first.');
      if (operation.right !== null && operation.right !== 'signed-in') demand(actor!, operation.right);
      const query = operation.query
        ? parsed(operation.query, Object.fromEntries(new URL(request.url).searchParams), 'query')
        : undefined;
      const body = operation.body ? parsed(operation.body, await jsonBody(request), '') : undefined;
      const file = operation.fileBytes ? await octets(request, operation.fileBytes) : Buffer.alloc(0);
      const params = await context.params;
      const result = await handler({
        actor: actor!,
        query: query as z.output<Q>,
        body: body as z.output<B>,
        file,
        params,
        address,
        request,
      });
      return result instanceof Response
        ? result
        : Response.json(result ?? { ok: true }, { headers: { 'cache-control': 'no-store' } });
    } catch (e) {
      return refusal(e);
    }
  };
}

/** Any error as an answer; what is not ours is logged and says nothing of itself. */
function refusal(e: unknown): Response {
  if (e instanceof InputRefused) return answer(e.status, e.errors);
  if (e instanceof EditRefused) return answer(e.status, e.errors, e.detail);
  if (e instanceof Refused) return answer(e.status, [{ code: e.code, path: e.path, sentence: e.message }], e.detail);
  if (e instanceof DatabaseGone) return answer(503, [{ code: 'database-gone', path: '', sentence: e.message }]);
  log.error({ err: e }, 'request failed');
  return answer(500, [
    { code: 'our-fault', path: '', sentence: 'Something broke on our side; nothing was changed. The log says more.' },
  ]);
}

function answer(status: number, errors: InputError[], detail?: Record<string, unknown>): Response {
  return Response.json(
    { error: { ...errors[0], ...detail }, errors },
    { status, headers: { 'cache-control': 'no-store' } },
  );
}

/** Input that no schema takes: 400 with every error. */
class InputRefused extends Error {
  readonly status = 400;
  constructor(readonly errors: InputError[]) {
    super(errors[0]?.sentence);
  }
}

function parsed<T extends z.ZodType>(schema: T, value: unknown, base: string): z.output<T> {
  const result = schema.safeParse(value);
  if (!result.success) throw new InputRefused(inputErrors(result.error, base));
  return result.data;
}

/** The body as JSON, counted while it streams in, so that a large one is refused before it is held. */
async function jsonBody(request: Request): Promise<unknown> {
  const body = await octets(request, MOST_BODY_BYTES);
  try {
    return JSON.parse(body.toString('utf8') || '{}');
  } catch {
    throw new Refused(400, 'not-json', 'The body is no JSON.');
  }
}

async function octets(request: Request, most: number): Promise<Buffer> {
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

/** The client's address; the application listens on loopback, so only a proxy that is trusted can say otherwise. */
export function addressOf(request: { headers: Headers }): string {
  const forwarded = process.env.POLYDROME_TRUST_PROXY === '1' ? request.headers.get('x-forwarded-for') : null;
  return forwarded?.split(',').at(-1)?.trim().slice(0, 45) || '127.0.0.1';
}

async function actorOf(request: Request, address: string): Promise<Actor | null> {
  const bearer = /^Bearer (\S+)$/.exec(request.headers.get('authorization') ?? '')?.[1];
  if (bearer) {
    const actor = await tokenActor(bearer, address);
    if (!actor) throw new Refused(401, 'bad-token', 'This token is unknown, revoked or over.');
    return actor;
  }
  const token = cookieOf(request);
  if (!token) return null;
  if (request.method !== 'GET' && !isOurOwnPage(request))
    throw new Refused(403, 'other-site', 'Changes come from our own pages only; use a bearer token elsewhere.');
  return sessionActor(token, address);
}

/** Attributes of the session's cookie; Secure where a trusted proxy says that the reader came by TLS. */
export function cookieAttributes(request: Request): string {
  const tls = process.env.POLYDROME_TRUST_PROXY === '1' && request.headers.get('x-forwarded-proto') === 'https';
  return `Path=/; HttpOnly; SameSite=Strict${tls ? '; Secure' : ''}`;
}

export function cookieOf(request: Request): string | null {
  const found = (request.headers.get('cookie') ?? '').split(/;\s*/).find((c) => c.startsWith(`${SESSION_COOKIE}=`));
  return found ? found.slice(SESSION_COOKIE.length + 1) : null;
}

/** Whether a request with a cookie was made by one of our pages (Fetch Metadata; Origin for older browsers). */
function isOurOwnPage(request: Request): boolean {
  const site = request.headers.get('sec-fetch-site');
  if (site) return site === 'same-origin';
  const origin = request.headers.get('origin');
  return origin !== null && new URL(origin).host === request.headers.get('host');
}
