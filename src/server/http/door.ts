import type { z } from 'zod';
import { contract, type Facts, type OperationName } from '@/contract';
import type { OneError } from '@/contract/shared';
import { inputErrors, titleAt } from '@/core/plan';
import { sessionActor } from '../access/accounts';
import { Refused, demand, demandPerson, type Actor } from '../access/rights';
import { tokenActor } from '../access/tokens';
import { DatabaseBusy, DatabaseGone } from '../db/pool';
import { Dropped, EngineAway } from '../engine';
import { log } from '../log';
import { handlers } from '../operations';
import type { AnyHandler } from '../operations/handler';
import { cookieOf } from '../access/session-cookie';
import { addressOf, cameFrom, demandJson, jsonBody, octets } from './request';
import { routeOf } from './routes';
import { unkeepable } from './text';

/** What stands in a path for a name: ids, kinds, numbers; nothing else has ever been one. */
const NAME = /^[\w.:+-]{1,80}$/;

const MOST_BODY_BYTES = 2 * 1024 * 1024;

/**
 * Answers a request below /api/v1: finds its operation, who asks and whether they may, reads query and body once by their
 * schemas, and turns every refusal into status, path and sentence.
 */
export async function serve(request: Request, path: readonly string[]): Promise<Response> {
  try {
    const found = routeOf(request.method === 'HEAD' ? 'GET' : request.method, path);
    if (found.name === null) return nothingHere(found.methods);
    return await answered(found.name, contract[found.name], request, found.params);
  } catch (e) {
    return refusal(e);
  }
}

function nothingHere(methods: readonly string[]): Response {
  if (methods.length === 0)
    return answer(404, [
      { code: 'no-such-path', path: '', sentence: 'There is nothing here; /api/v1/openapi.json lists what there is.' },
    ]);
  const refused = answer(405, [
    { code: 'no-such-method', path: '', sentence: `This takes ${methods.join(' and ')}; see /api/v1/openapi.json.` },
  ]);
  refused.headers.set('allow', methods.join(', '));
  return refused;
}

async function answered(
  name: OperationName,
  operation: Facts,
  request: Request,
  params: Record<string, string>,
): Promise<Response> {
  const address = addressOf(request);
  // What needs no sign-in asks for none: a page that looks after our health is no sign of life of its reader.
  const actor = operation.right === null ? null : await actorOf(request, address);
  // Nobody is signed in or out by a page of somebody else's.
  if (
    operation.right === null &&
    request.method !== 'GET' &&
    request.method !== 'HEAD' &&
    cameFrom(request) === 'elsewhere'
  )
    throw otherSite();
  if (operation.right !== null && !actor)
    throw new Refused(401, 'not-signed-in', 'Sign in first, or send a bearer token.');
  if (actor?.mustChange && name !== 'ownPassword' && name !== 'signOut')
    throw new Refused(403, 'must-change', 'Change the password that somebody else has given you first.');
  if (operation.noTokens && actor?.via === 'token')
    throw new Refused(403, 'not-by-token', 'A token has no account of its own to act on; sign in to do this.');
  if (operation.right === 'person') demandPerson(actor!);
  else if (operation.right !== null && operation.right !== 'signed-in') demand(actor!, operation.right);
  if (!Object.values(params).every((p) => NAME.test(p)))
    throw new Refused(404, 'no-such-name', 'Nothing of ours has such a name: letters, digits, hyphens, dots.');
  const query = operation.query
    ? parsed(operation.query, Object.fromEntries(new URL(request.url).searchParams), 'query')
    : undefined;
  if (operation.body) demandJson(request);
  const body = operation.body ? parsed(operation.body, await jsonBody(request, MOST_BODY_BYTES), '') : undefined;
  const file = operation.fileBytes ? await octets(request, operation.fileBytes) : Buffer.alloc(0);
  const handler = handlers[name] as AnyHandler;
  const result = await handler({ actor: actor!, query, body, file, params, address, request });
  if (result instanceof Response) return result;
  const value = result ?? { ok: true };
  checkAnswer(name, operation, value);
  return Response.json(value, { headers: { 'cache-control': 'no-store' } });
}

/** In development and tests every answer is held against its schema: what the contract does not say is a bug. */
function checkAnswer(name: OperationName, operation: Facts, value: unknown): void {
  if (process.env.NODE_ENV === 'production' && process.env.POLYDROME_CHECK_ANSWERS !== '1') return;
  // The plan is what it was read as; it is checked where it is written.
  if (!operation.answer || name === 'plan') return;
  const result = operation.answer.safeParse(JSON.parse(JSON.stringify(value)));
  if (!result.success)
    throw new Error(`the answer of ${name} is not what the contract says: ${JSON.stringify(result.error.issues[0])}`);
}

/** Any error as an answer; what is not ours is logged and says nothing of itself. */
function refusal(e: unknown): Response {
  if (e instanceof InputRefused) return answer(e.status, e.errors);
  if (e instanceof Refused) return answer(e.status, e.errors, e.detail);
  if (e instanceof DatabaseGone) return answer(503, [{ code: 'database-gone', path: '', sentence: e.message }]);
  if (e instanceof DatabaseBusy) return answer(503, [{ code: 'database-busy', path: '', sentence: e.message }]);
  if (e instanceof EngineAway) return answer(503, [{ code: 'engine-away', path: '', sentence: e.message }]);
  if (e instanceof Dropped) return answer(409, [{ code: 'superseded', path: '', sentence: e.message }]);
  log.error({ err: e }, 'request failed');
  return answer(500, [
    { code: 'our-fault', path: '', sentence: 'Something broke on our side; nothing was changed. The log says more.' },
  ]);
}

function answer(status: number, errors: OneError[], detail?: Record<string, unknown>): Response {
  return Response.json(
    { error: { ...errors[0], ...detail }, errors },
    { status, headers: { 'cache-control': 'no-store' } },
  );
}

/** Input that no schema takes: 400 with every error. */
class InputRefused extends Error {
  readonly status = 400;
  constructor(readonly errors: OneError[]) {
    super(errors[0]?.sentence);
  }
}

function parsed(schema: z.ZodType, value: unknown, base: string): unknown {
  const wrong = unkeepable(value);
  if (wrong) throw new InputRefused([wrong]);
  const result = schema.safeParse(value);
  if (!result.success) throw new InputRefused(inputErrors(result.error, base, (path) => titleAt(schema, path)));
  return result.data;
}

const otherSite = () =>
  new Refused(403, 'other-site', 'Changes come from our own pages only; use a bearer token elsewhere.');

async function actorOf(request: Request, address: string): Promise<Actor | null> {
  const bearer = /^Bearer (\S+)$/.exec(request.headers.get('authorization') ?? '')?.[1];
  if (bearer) {
    const actor = await tokenActor(bearer, address);
    if (!actor) throw new Refused(401, 'bad-token', 'This token is unknown, revoked or over.');
    return actor;
  }
  const token = cookieOf(request);
  if (!token) return null;
  if (request.method !== 'GET' && request.method !== 'HEAD' && cameFrom(request) !== 'our own page') throw otherSite();
  return sessionActor(token, address);
}
