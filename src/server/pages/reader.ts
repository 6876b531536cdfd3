import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import { sessionActor } from '../access/accounts';
import type { Actor } from '../access/rights';
import { SESSION_COOKIE } from '../access/session-cookie';
import { reading } from '../db/pool';
import { readVersions } from '../db/versions';
import { ask, type AnswerOf, type InputOf, type QuestionName } from '../engine';
import { isUnowned } from '../access/first-owner';
import { ASKED_HEADER, addressOf } from '../http/request';

/** Where draft and live stand as a page begins: read once for all of its parts. */
const pageVersions = cache(() => reading(readVersions));

/** Asks the engine for a page: whatever comes meanwhile, all parts of it are of one version. */
export async function askForPage<N extends QuestionName>(name: N, input: InputOf<N>): Promise<AnswerOf<N>> {
  return ask(name, input, { at: await pageVersions() });
}

/** The token of the session that a page is looked at with; null when there is none. */
export async function pageToken(): Promise<string | null> {
  return (await cookies()).get(SESSION_COOKIE)?.value ?? null;
}

/** Who looks at a page; sends to the sign-in and back again when nobody does, and to the password when it is somebody else's. */
export async function pageActor(): Promise<Actor> {
  const actor = await signedInActor();
  // People have a page of their own and no other.
  if (actor.person !== undefined) redirect('/own');
  return actor;
}

async function signedInActor(): Promise<Actor> {
  const token = await pageToken();
  const actor = token ? await sessionActor(token, addressOf({ headers: await headers() })) : null;
  if (!actor) redirect((await isUnowned()) ? '/welcome' : await signInFor());
  if (actor.mustChange) redirect('/change-password');
  return actor;
}

/** The person who looks at the page of their own; administrators go to theirs, unless they may come too. */
export async function personActor(who: 'or administrator'): Promise<Actor>;
export async function personActor(): Promise<Actor & { person: string }>;
export async function personActor(who?: 'or administrator'): Promise<Actor> {
  const actor = await signedInActor();
  if (actor.person === undefined && !who) redirect('/');
  return actor;
}

/** The sign-in that leads to what was asked for; the front says what that was. */
async function signInFor(): Promise<string> {
  const asked = (await headers()).get(ASKED_HEADER);
  return asked && asked !== '/' ? `/sign-in?back=${encodeURIComponent(asked)}` : '/sign-in';
}
