import type { LedgerKind } from '@/core/plan';
import { limitUse } from '../access/organisation-limits';
import type { LimitName } from '@/core/acts/limits';
import { situationAt } from '../state/situation';
import { PLACES, isPlaceName } from '@/core/plan/facts/places';
import { notFound } from 'next/navigation';
import { askForPage, pageActor } from './reader';

/* Pages of lists. */

/** What is left of what may be added, before the first field. */
export const left = async (name: LimitName) =>
  (await limitUse(await askForPage('used', {}))).filter((l) => l.name === name);

export async function longLedger(
  kind: LedgerKind,
  asked: Record<string, string | undefined>,
  addFields: readonly string[] = [],
) {
  const reader = await pageActor();
  const page = await askForPage('longLedger', { reader, kind, asked, addFields });
  return kind === 'mailbox' ? { ...page, add: { ...page.add, limits: await left('mailboxes') } } : page;
}

export const sites = async () => askForPage('sites', { reader: await pageActor() });
export const teams = async () => askForPage('teams', { reader: await pageActor() });
export const hours = async () => askForPage('hoursLedger', { reader: await pageActor(), now: Date.now() });
export const promises = async () => askForPage('promisesLedger', { reader: await pageActor() });
export const classes = async () => askForPage('classes', { reader: await pageActor() });

export async function trunks() {
  const page = await askForPage('trunks', { reader: await pageActor() });
  return { ...page, add: { ...page.add, limits: await left('channels') } };
}

export async function inbound() {
  const reader = await pageActor();
  const now = Date.now();
  return askForPage('inbound', { reader, now, situation: await situationAt(now) });
}

export const outbound = async (wanted: string | undefined) =>
  askForPage('outbound', { reader: await pageActor(), wanted });

export const places = async (site: string | undefined) => askForPage('places', { reader: await pageActor(), site });

export async function placesOf(name: string) {
  if (!isPlaceName(name)) notFound();
  const kind = PLACES[name];
  return { name, kind, data: await askForPage('placesOf', { reader: await pageActor(), kind }) };
}

export async function timeSwitches() {
  const now = Date.now();
  return askForPage('timeSwitches', { reader: await pageActor(), now, situation: await situationAt(now) });
}

export const holidays = async () => askForPage('holidaysLedger', { reader: await pageActor(), today: Date.now() });

export async function attendants() {
  const page = await askForPage('attendants', { reader: await pageActor() });
  return { ...page, add: { ...page.add, limits: await left('attendants') } };
}

export async function queues() {
  const page = await askForPage('queues', { reader: await pageActor() });
  return { ...page, add: { ...page.add, limits: await left('queues') } };
}

export const reachPlans = async () => askForPage('reachPlans', { reader: await pageActor() });

export const ringGroups = async () => askForPage('ringGroups', { reader: await pageActor() });

export async function prompts() {
  const reader = await pageActor();
  const [data, phrases, music] = await Promise.all([
    askForPage('prompts', { reader }),
    askForPage('phrases', { reader }),
    askForPage('music', { reader }),
  ]);
  return { data, phrases, music };
}
