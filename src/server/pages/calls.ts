import { DateTime } from 'luxon';
import { notFound } from 'next/navigation';
import { callFilterSchema, type CallFilter } from '@/contract/records';
import { Refused, may, mayEverywhere, type Actor } from '../access/rights';
import { findCalls } from '../records/calls';
import { missedCallers } from '../records/missed';
import { oneCall } from '../records/one';
import { callSightOf } from '../records/sight';
import { askForPage, pageActor } from './reader';

/* Pages of calls as they were. */

async function callReader(): Promise<Actor> {
  const reader = await pageActor();
  if (!may(reader, 'seeCalls')) notFound();
  return reader;
}

/** An address that somebody has changed by hand is read as far as it makes sense. */
function filterOf(asked: Record<string, string | undefined>): CallFilter {
  const known = Object.fromEntries(Object.entries(asked).filter(([k]) => k in callFilterSchema.shape));
  const read = callFilterSchema.safeParse(known);
  return read.success ? read.data : callFilterSchema.parse({});
}

/** What calls can be chosen by, and what their reader may do with them. */
async function aboutCalls(reader: Actor) {
  const choices = await askForPage('callChoices', { reader });
  return {
    ...choices,
    account: reader.account,
    seesNumbers: callSightOf(reader).numbers === 'all',
    mayAsk: may(reader, 'ask'),
    mayKeep: may(reader, 'keepCalls'),
    mayBlock: may(reader, 'actNow'),
    maySet: may(reader, 'changeSettings'),
  };
}

const asText = (filter: CallFilter): Record<string, string> =>
  Object.fromEntries(Object.entries(filter).map(([k, v]) => [k, String(v)]));

export async function callsPage(asked: Record<string, string | undefined>) {
  const reader = await callReader();
  const filter = filterOf(asked);
  const first = findCalls(reader, filter, '')
    .then((page) => ({ page, wrong: null }))
    .catch((e: unknown) => {
      if (e instanceof Refused) return { page: { calls: [], next: null, searchedTo: null }, wrong: e.message };
      throw e;
    });
  const [about, { page, wrong }] = await Promise.all([aboutCalls(reader), first]);
  return { about, filter: asText(filter), first: page, wrong };
}

export async function callPage(written: string) {
  const reader = await callReader();
  try {
    return { call: await oneCall(reader, plainly(written)), about: await aboutCalls(reader) };
  } catch (e) {
    if (e instanceof Refused && e.status === 404) notFound();
    throw e;
  }
}

/** A part of an address as it was meant; empty where it is none. */
function plainly(part: string): string {
  try {
    return decodeURIComponent(part);
  } catch {
    return '';
  }
}

export async function missedPage(asked: { days?: string; all?: string }) {
  const reader = await callReader();
  const days = Math.min(60, Math.max(1, Math.floor(Number(asked.days)) || 14));
  const all = asked.all === 'true';
  return { about: await aboutCalls(reader), asked: { days, all }, missed: await missedCallers(reader, { days, all }) };
}

/** Charts, traffic and replay ask for their figures themselves: they come after the page. */
export async function countedPage(asked: Record<string, string | undefined>) {
  const reader = await callReader();
  const about = await aboutCalls(reader);
  const filter = asText(filterOf(asked));
  // Four weeks, unless something is said: what is counted and what a bar opens are the same calls.
  const from = filter.from || filter.to ? filter.from : dayIn(about.zone, Date.now() - (WEEKS * 7 - 1) * DAY);
  return { about, filter: { ...filter, from: from! } };
}

const WEEKS = 4;
const DAY = 86_400_000;
const dayIn = (zone: string, at: number): string => DateTime.fromMillis(at, { zone }).toISODate()!;

export async function callImportPage() {
  const reader = await callReader();
  return { about: await aboutCalls(reader) };
}

export async function erasePage() {
  const reader = await callReader();
  return { about: await aboutCalls(reader), everything: mayEverywhere(reader, 'look') };
}
