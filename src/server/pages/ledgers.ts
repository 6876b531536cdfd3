import type { LedgerKind } from '@/core/plan';
import { limitUse } from '../access/organisation-limits';
import type { LimitName } from '@/core/acts/limits';
import { ask } from '../engine';
import { situationAt } from '../state/forwarding';
import { pageActor } from './reader';

/* Pages of lists. */

/** What is left of what may be added, before the first field. */
const left = async (name: LimitName) => (await limitUse(await ask('used', {}))).filter((l) => l.name === name);

export async function longLedger(
  kind: LedgerKind,
  asked: Record<string, string | undefined>,
  addFields: readonly string[] = [],
) {
  const reader = await pageActor();
  const page = await ask('longLedger', { reader, kind, asked, addFields });
  return kind === 'mailbox' ? { ...page, add: { ...page.add, limits: await left('mailboxes') } } : page;
}

export const sites = async () => ask('sites', { reader: await pageActor() });
export const teams = async () => ask('teams', { reader: await pageActor() });
export const classes = async () => ask('classes', { reader: await pageActor() });

export async function trunks() {
  const page = await ask('trunks', { reader: await pageActor() });
  return { ...page, add: { ...page.add, limits: await left('channels') } };
}

export async function inbound() {
  const reader = await pageActor();
  const now = Date.now();
  return ask('inbound', { reader, now, situation: await situationAt(now) });
}

export const outbound = async (wanted: string | undefined) => ask('outbound', { reader: await pageActor(), wanted });
