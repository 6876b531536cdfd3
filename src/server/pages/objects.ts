import { notFound } from 'next/navigation';
import type { ObjectKind } from '@/core/plan';
import { hasPin } from '../access/secrets';
import { may, type Actor } from '../access/rights';
import { type AnswerOf } from '../engine';
import { switchesSet } from '../state/switches';
import { PLACES, isPlaceName } from '@/core/plan/facts/places';
import { forwardingAt } from '../state/forwarding';
import { ownSetOf } from '../own/told';
import { mutedAt } from '../state/muted';
import { situationAt } from '../state/situation';
import { askForPage, pageActor } from './reader';

/* Pages of one object. The object comes with the page; what takes longer comes after it, as a promise that is streamed. */

export type Around = NonNullable<AnswerOf<'consequences'>>;
type PageOf = NonNullable<AnswerOf<'objectPage'>>;

/** What reaches an object and what its edit changes, on its way. */
export async function around(reader: Actor, kind: ObjectKind, id: string): Promise<Around> {
  const now = Date.now();
  const [situation, mutes] = await Promise.all([situationAt(now), mutedAt(new Date(now))]);
  const found = await askForPage('consequences', { reader, kind, id, now, situation, mutes });
  return (
    found ?? {
      reachedBy: [],
      leadsTo: [],
      doubts: [],
      changes: [],
      asked: 'not edited',
      course: null,
      referredToBy: 0,
      picture: null,
      problems: [],
      of: id,
      isPlace: false,
    }
  );
}

const withAround = (reader: Actor, page: PageOf) => ({ ...page, around: around(reader, page.kind, page.object.id) });

/** What the page of one object shows. */
export async function objectPage(kind: ObjectKind, id: string) {
  const actor = await pageActor();
  const page = await askForPage('objectPage', { reader: actor, kind, id });
  if (!page) notFound();
  return withAround(actor, page);
}

export async function extensionPage(id: string) {
  const actor = await pageActor();
  const found = await askForPage('extensionPage', { reader: actor, id });
  if (!found) notFound();
  const mailbox = found.data.object.mailbox as string | null;
  return {
    data: withAround(actor, found.data),
    numbers: found.numbers,
    forwarding: await forwardingAt(new Date(), id),
    pinSet: mailbox ? await hasPin(mailbox) : false,
  };
}

export async function personPage(id: string) {
  const actor = await pageActor();
  const now = Date.now();
  const found = await askForPage('personPage', { reader: actor, id, now, situation: await situationAt(now) });
  if (!found) notFound();
  const states = found.extensions[0]?.presence ?? [];
  return {
    ...found,
    data: withAround(actor, found.data),
    ownSet: await ownSetOf(actor, {
      person: id,
      extensions: found.extensions.map((e) => e.data.object.id),
      mailboxes: found.extensions.flatMap((e) => (e.mailbox ? [e.mailbox.object.id] : [])),
      states: Object.fromEntries(states.map((s) => [s.rule, s.name])),
    }),
    extensions: await Promise.all(
      found.extensions.map(async (e) => ({
        ...e,
        data: withAround(actor, e.data),
        forwarding: await forwardingAt(new Date(now), e.data.object.id),
        mailbox: e.mailbox && {
          data: withAround(actor, e.mailbox),
          pinSet: await hasPin(e.mailbox.object.id),
        },
      })),
    ),
  };
}

export async function teamPage(id: string) {
  const actor = await pageActor();
  const found = await askForPage('teamPage', { reader: actor, id });
  if (!found) notFound();
  return { ...found, data: withAround(actor, found.data) };
}

export async function hoursPage(id: string) {
  const actor = await pageActor();
  const found = await askForPage('hoursPage', { reader: actor, id, now: Date.now() });
  if (!found) notFound();
  return { ...found, data: withAround(actor, found.data) };
}

export async function numberPage(id: string) {
  const data = await objectPage('number', id);
  return { data, zone: await askForPage('zoneOfSite', { id: String(data.object.site) }) };
}

export async function inboundRoutePage(id: string) {
  const actor = await pageActor();
  const found = await askForPage('inboundRoutePage', { reader: actor, id });
  if (!found) notFound();
  return { ...found, data: withAround(actor, found.data) };
}

export async function sitePage(id: string) {
  const data = await objectPage('site', id);
  return { data, moves: await askForPage('movesOfSite', { id }) };
}

export async function placePage(name: string, id: string) {
  if (!isPlaceName(name)) notFound();
  return { name, data: await objectPage(PLACES[name], id) };
}

export async function promisePage(id: string) {
  const actor = await pageActor();
  const found = await askForPage('promisePage', { reader: actor, id });
  if (!found) notFound();
  return { ...found, data: withAround(actor, found.data) };
}

export async function timeSwitchPage(id: string) {
  const actor = await pageActor();
  const found = await askForPage('timeSwitchPage', { reader: actor, id });
  if (!found) notFound();
  const [set] = await switchesSet(id);
  return { ...found, data: withAround(actor, found.data), set: set ?? null };
}

export async function holidaysPage(id: string) {
  const data = await objectPage('holidays', id);
  return {
    data,
    usedBy: await askForPage('hoursOfCalendar', { reader: await pageActor(), id }),
    today: new Date().toISOString().slice(0, 10),
  };
}

export async function attendantPage(id: string) {
  const actor = await pageActor();
  const found = await askForPage('attendantPage', { reader: actor, id });
  if (!found) notFound();
  return { ...found, data: withAround(actor, found.data) };
}

export async function queuePage(id: string) {
  const actor = await pageActor();
  const found = await askForPage('queuePage', { reader: actor, id });
  if (!found) notFound();
  return { ...found, data: withAround(actor, found.data) };
}

export async function reachPlanPage(id: string) {
  const actor = await pageActor();
  const found = await askForPage('reachPlanPage', { reader: actor, id });
  if (!found) notFound();
  return { ...found, data: withAround(actor, found.data) };
}

/** What the staffing of a queue is worked out from, before its calls are asked for. */
export async function staffingPage(id: string) {
  const actor = await pageActor();
  const found = await askForPage('staffingPage', { reader: actor, id });
  if (!found) notFound();
  return {
    ...found,
    account: actor.account,
    today: new Date().toISOString().slice(0, 10),
    maySeeCalls: may(actor, 'seeCalls'),
  };
}

export async function promptPage(id: string) {
  const actor = await pageActor();
  const found = await askForPage('promptPage', { reader: actor, id });
  if (!found) notFound();
  return { ...found, data: withAround(actor, found.data) };
}
