import { notFound, redirect } from 'next/navigation';
import { showNumber } from '@/core/numbers';
import { hasPin } from '../access/secrets';
import { hasSecondFactor } from '../access/second-factor';
import { greetingsOf } from '../own/greetings';
import { invitationOf } from '../own/join';
import { callsTo } from '../records/own';
import { entriesAt, type StateKind } from '../state/entries';
import { forwardingAt } from '../state/forwarding';
import { situationAt } from '../state/situation';
import { FACES } from './frame';
import { askForPage, personActor } from './reader';

/** What a person's own page shows; until a second factor is proved where one is asked for, only that. */
export async function ownPageData() {
  const actor = await personActor();
  const secondFactor = await hasSecondFactor(actor);
  const dayOrder = await askForPage('dayOrder', {});
  const account = { dayOrder, account: actor.account, name: actor.name, signIn: actor.signIn, secondFactor };
  if (actor.needsSecondFactor) return { ...account, own: null, faces: FACES };
  const now = Date.now();
  const situation = await situationAt(now);
  const page = await askForPage('ownPage', { person: actor.person, situation, now });
  if (!page) return { ...account, own: 'gone' as const, faces: FACES };
  const entries = await entriesAt(now);
  const holds = (kind: StateKind, subject: string) => entries.find((e) => e.kind === kind && e.subject === subject);
  const presence = holds('presence', actor.person);
  const forwarding = await forwardingAt(new Date(now));
  const phones = await Promise.all(
    page.phones.map(async (p) => {
      const reach = situation.reach?.find((r) => r.extension === p.id) ?? null;
      const { agentOf, ...phone } = p;
      return {
        ...phone,
        agent:
          agentOf.length === 0
            ? null
            : {
                queues: agentOf.map((q) => q.name),
                permanent: agentOf.every((q) => q.permanent),
                signedIn: holds('signed-in', p.id) !== undefined,
                paused: (holds('paused', p.id)?.value.reason as string | undefined) ?? null,
              },
        own: reach && {
          showsCaller: reach.showsCaller ?? true,
          steps: await askForPage('ownReachWords', { reach }),
        },
        forwarding: forwarding.filter((f) => f.extension === p.id),
      };
    }),
  );
  const mailboxes = await Promise.all(
    page.mailboxes.map(async (m) => ({
      id: m.id,
      name: m.name,
      on: m.on,
      email: m.email,
      group: m.owners.length > 1,
      pinSet: await hasPin(m.id),
      greetings: await greetingsOf(m.id),
    })),
  );
  const calls = await callsTo({ ends: [...phones.map((p) => p.id), ...mailboxes.map((m) => m.id)], now });
  return {
    ...account,
    faces: FACES,
    own: {
      organisation: page.organisation,
      zone: page.zone,
      states: page.states.map(({ id, name }) => ({ id, label: name })),
      presence: presence
        ? {
            state: presence.value.rule as string,
            until: presence.until === null ? null : new Date(presence.until).toISOString(),
          }
        : null,
      phones,
      mailboxes,
      watched: page.watched,
      calls: calls.map((c) => ({
        ...c,
        shown:
          c.calling === null
            ? 'hidden number'
            : c.calling.startsWith('+')
              ? showNumber(c.calling, page.country)
              : c.calling,
      })),
    },
  };
}

/** Whose link this is; the page of one that opens nothing says so. */
export const joinPageData = async (token: string) => invitationOf(token.slice(0, 80));

/** The place where a mail's link leads: people to their own page, others to the mailbox. */
export async function messagesAt(id: string): Promise<never> {
  if (!/^[a-z0-9-]{1,36}$/.test(id)) notFound();
  const actor = await personActor('or administrator');
  redirect(actor.person === undefined ? `/mailboxes/${id}` : `/own#mailbox-${id}`);
}
