import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { sessionActor } from '../access/accounts';
import type { Actor } from '../access/rights';
import { SESSION_COOKIE } from '../access/session-cookie';
import { addressOf } from '../http/request';

/** The token of the session that a page is looked at with; null when there is none. */
export async function pageToken(): Promise<string | null> {
  return (await cookies()).get(SESSION_COOKIE)?.value ?? null;
}

/** Who looks at a page; sends to the sign-in when nobody does, and to the password when it is somebody else's. */
export async function pageActor(): Promise<Actor> {
  const token = await pageToken();
  const actor = token ? await sessionActor(token, addressOf({ headers: await headers() })) : null;
  if (!actor) redirect('/sign-in');
  if (actor.mustChange) redirect('/change-password');
  return actor;
}
