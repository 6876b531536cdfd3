import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { OBJECT_KINDS, objectsOf } from '@/core/plan';
import { sessionActor } from './access/accounts';
import { rightsOf, type Actor } from './access/rights';
import { draftPlan, pendingEdits } from './draft';
import { SESSION_COOKIE, addressOf } from './http/door';

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

/** What the frame around every page shows. */
export async function frameData() {
  const actor = await pageActor();
  const [draft, pending] = [await draftPlan(), await pendingEdits(actor)];
  const by = new Map<string, number>();
  for (const e of pending.edits) {
    const last = e.by.at(-1);
    if (last) by.set(last, (by.get(last) ?? 0) + 1);
  }
  const people = [...by]
    .map(([name, count]) => ({ name: name === actor.name ? 'you' : name, count }))
    .sort((a) => (a.name === 'you' ? -1 : 1));
  const counts: Record<string, number> = Object.fromEntries(
    OBJECT_KINDS.map((k) => [k, objectsOf(draft.plan, k).length]),
  );
  return {
    actor: { name: actor.name, role: actor.role.name, rights: rightsOf(actor.role), account: actor.account },
    organisation: draft.plan.organisation.name,
    sites: draft.plan.sites.map((s) => ({ name: s.name, zone: s.zone })),
    counts: { ...counts, edits: pending.edits.length, revision: pending.revision },
    ribbon: { edits: pending.edits.length, by: people },
    draftVersion: draft.version,
  };
}
