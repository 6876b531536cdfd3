import { signIn, signOut } from '../access/accounts';
import { DEVICE_COOKIE, DEVICE_SECONDS } from '../access/devices';
import {
  addAdministrator,
  changeAdministrator,
  changeOwnPassword,
  listAdministrators,
  resetPassword,
} from '../access/administrators';
import { limitUse, readLimits, setLimits } from '../access/organisation-limits';
import { Refused } from '../access/rights';
import { deleteRole, listRoles, saveRole } from '../access/roles';
import { endSecondFactor, giveCode, offerSecondFactor, startSecondFactor } from '../access/second-factor';
import { endSession, listSessions } from '../access/sessions';
import { changeSettings } from '../access/settings';
import { listApiTokens, makeApiToken, revokeApiToken } from '../access/tokens';
import { proposeSite } from '@/core/acts/sites';
import { emptyPlan } from '@/core/plan';
import { isUnowned } from '../access/first-owner';
import { begin } from './first';
import { ask } from '../engine';
import { SESSION_COOKIE, cookieAttributes, cookieOf } from '../access/session-cookie';
import type { Handlers } from './handler';
import type { accessFacts } from '@/contract/access';

export function withCookies(body: object, cookies: readonly string[]): Response {
  const response = Response.json(body, { headers: { 'cache-control': 'no-store' } });
  for (const cookie of cookies) response.headers.append('set-cookie', cookie);
  return response;
}

/** Signs in with name and password; the session goes into cookies. */
export async function signedIn(
  name: string,
  password: string,
  { address, request }: { address: string; request: Request },
) {
  const agent = request.headers.get('user-agent') ?? '';
  const { token, device, waitsForCode } = await signIn(name, password, {
    address,
    agent,
    device: cookieOf(request, DEVICE_COOKIE),
  });
  const attributes = cookieAttributes(request);
  const cookies = [
    `${SESSION_COOKIE}=${token}; ${attributes}`,
    `${DEVICE_COOKIE}=${device}; Max-Age=${DEVICE_SECONDS}; ${attributes}`,
  ];
  return { waitsForCode, cookies };
}

export const accessHandlers: Handlers<keyof typeof accessFacts> = {
  firstStart: async ({ query }) => {
    const open = await isUnowned();
    return { open, proposal: open && query.country ? proposeSite(emptyPlan('first'), query.country) : null };
  },
  begin: async ({ body, ...from }) => {
    await begin(body, from.address);
    const { cookies } = await signedIn(body.owner.signIn, body.owner.password, from);
    return withCookies({ ok: true }, cookies);
  },
  signIn: async ({ body, ...from }) => {
    const { waitsForCode, cookies } = await signedIn(body.name, body.password, from);
    return withCookies({ ok: true, waitsForCode }, cookies);
  },
  signInCode: async ({ body, address, request }) => {
    const token = cookieOf(request);
    if (!token) throw new Refused(401, 'not-signed-in', 'Sign in with name and password first.');
    await giveCode(token, body.code, address);
  },
  signOut: async ({ request }) => {
    const token = cookieOf(request);
    if (token) await signOut(token);
    return withCookies({ ok: true }, [`${SESSION_COOKIE}=; Max-Age=0; ${cookieAttributes(request)}`]);
  },
  sessions: async ({ actor, request }) => ({ sessions: await listSessions(actor, cookieOf(request)) }),
  endSession: ({ actor, params }) => endSession(actor, params.id),
  ownPassword: ({ actor, body, request }) => changeOwnPassword(actor, cookieOf(request), body.old, body.password),
  offerSecondFactor: ({ actor }) => offerSecondFactor(actor),
  startSecondFactor: ({ actor, body }) => startSecondFactor(actor, body.secret, body.code),
  endSecondFactor: ({ actor }) => endSecondFactor(actor, actor.account),
  administrators: async ({ actor }) => ({ administrators: await listAdministrators(actor) }),
  addAdministrator: ({ actor, body }) => addAdministrator(actor, body),
  changeAdministrator: ({ actor, body, params }) => changeAdministrator(actor, params.id, body),
  resetPassword: ({ actor, params }) => resetPassword(actor, params.id),
  resetSecondFactor: ({ actor, params }) => endSecondFactor(actor, params.id),
  roles: async () => ({ roles: await listRoles() }),
  makeRole: ({ actor, body }) => saveRole(actor, null, body),
  changeRole: ({ actor, body, params }) => saveRole(actor, params.id, body),
  deleteRole: ({ actor, params }) => deleteRole(actor, params.id),
  tokens: async ({ actor }) => ({ tokens: await listApiTokens(actor) }),
  makeToken: ({ actor, body }) => makeApiToken(actor, body),
  revokeToken: ({ actor, params }) => revokeApiToken(actor, params.id),
  settings: ({ actor, body }) => changeSettings(actor, body),
  limits: async () => ({ limits: await readLimits(), use: await limitUse(await ask('used', {})) }),
  setLimits: ({ actor, body }) => setLimits(actor, body),
};
