import { v7 as uuid } from 'uuid';
import type { CalendarFeed, CalendarLinks } from '@/contract/calendars';
import { recordHistory } from '../access/history';
import { Refused, demand, type Actor } from '../access/rights';
import { seal, unseal } from '../access/secrets';
import { newToken, tokenHash } from '../access/tokens';
import { change, reading, rows, writing } from '../db/pool';
import { ask } from '../engine';
import { situationAt } from '../state/situation';
import { fetchCalendar } from './fetch-calendar';

/* Secret addresses under which calendar programs read hours, and feeds of others that are read for hours. */

const MOST_ADDRESSES = 20;
/** A feed is read again after so long. */
const READ_EVERY_MS = 6 * 3_600_000;
const SUFFIX = '.ics';

/** Hours that the actor may edit (or look at), by name; 404 when there are none. */
async function demandHours(actor: Actor, id: string, right: 'look' | 'edit'): Promise<string> {
  const { where, label } = await ask('one', { reader: actor, kind: 'hours', id });
  demand(actor, right, where, label);
  return label;
}

/** Makes a secret address for hours; its path is told once. */
export async function makeAddress(actor: Actor, hours: string): Promise<{ id: string; path: string }> {
  const label = await demandHours(actor, hours, 'edit');
  const [id, secret] = [uuid(), newToken()];
  await writing(async (c) => {
    const [known] = await rows<{ n: number }>(c, 'SELECT COUNT(*) AS n FROM calendar_address WHERE hours = ?', [hours]);
    if (Number(known!.n) >= MOST_ADDRESSES)
      throw new Refused(
        422,
        'too-many',
        `There are ${MOST_ADDRESSES} addresses already; revoke one that nobody reads.`,
      );
    await change(c, 'INSERT INTO calendar_address (id, hours, secret_hash, made_at, made_by) VALUES (?, ?, ?, ?, ?)', [
      id,
      hours,
      tokenHash(secret),
      new Date(),
      actor.account,
    ]);
    await recordHistory(c, actor, { action: 'calendar-address-made', object: hours, of: label });
  });
  return { id, path: `/api/v1/calendars/${secret}${SUFFIX}` };
}

export async function revokeAddress(actor: Actor, hours: string, id: string): Promise<void> {
  const label = await demandHours(actor, hours, 'edit');
  await writing(async (c) => {
    if ((await change(c, 'DELETE FROM calendar_address WHERE id = ? AND hours = ?', [id, hours])) === 0)
      throw new Refused(404, 'no-such-address', 'There is no such address, or it is revoked already.');
    await recordHistory(c, actor, { action: 'calendar-address-revoked', object: hours, of: label });
  });
}

/** The hours that a secret address is of, for whoever knows it; 404 when nobody made it, or it is revoked. */
export async function hoursOfAddress(secret: string): Promise<string> {
  const hash = tokenHash(secret.endsWith(SUFFIX) ? secret.slice(0, -SUFFIX.length) : secret);
  const [found] = await reading((c) =>
    rows<{ id: string; hours: string }>(c, 'SELECT id, hours FROM calendar_address WHERE secret_hash = ?', [hash]),
  );
  if (!found) throw new Refused(404, 'no-such-address', 'There is no calendar here.');
  await writing((c) => change(c, 'UPDATE calendar_address SET last_read_at = ? WHERE id = ?', [new Date(), found.id]));
  return found.hours;
}

/** The live hours with their notices as iCalendar text; null when they are live no more. */
export async function calendarText(hours: string): Promise<{ name: string; text: string } | null> {
  const now = Date.now();
  return ask('calendarOfHours', { id: hours, of: 'live', now, situation: await situationAt(now) });
}

interface FeedRow {
  id: string;
  hours: string;
  address: Buffer;
  shown: string;
  read_at: Date | null;
  outcome: string;
  dates: unknown;
}

const feedOf = async (hours: string): Promise<FeedRow | null> => {
  const [found] = await reading((c) => rows<FeedRow>(c, 'SELECT * FROM calendar_feed WHERE hours = ?', [hours]));
  return found ?? null;
};

/** What is known of the feed of some hours, with what it would change in the draft. */
async function told(actor: Actor, hours: string, row: FeedRow): Promise<CalendarFeed> {
  const dates = (typeof row.dates === 'string' ? JSON.parse(row.dates) : row.dates) as CalendarFeed['dates'];
  return {
    shown: row.shown,
    readAt: row.read_at?.toISOString() ?? null,
    outcome: row.outcome,
    dates,
    changes: dates ? await ask('feedChanges', { reader: actor, id: hours, dates }) : [],
  };
}

export async function calendarLinks(actor: Actor, hours: string): Promise<CalendarLinks> {
  await demandHours(actor, hours, 'look');
  const found = await reading((c) =>
    rows(
      c,
      'SELECT l.id, l.made_at, l.last_read_at, a.name FROM calendar_address l LEFT JOIN account a ON a.id = l.made_by WHERE l.hours = ? ORDER BY l.id',
      [hours],
    ),
  );
  const row = await feedOf(hours);
  return {
    addresses: found.map((r) => ({
      id: r.id as string,
      madeAt: (r.made_at as Date).toISOString(),
      madeBy: (r.name as string | null) ?? 'somebody who is gone',
      lastReadAt: (r.last_read_at as Date | null)?.toISOString() ?? null,
    })),
    feed: row && (await told(actor, hours, row)),
  };
}

/** The host of an address: what comes after it may be secret. */
function shownOf(address: string): string {
  try {
    return new URL(address.replace(/^webcal:/i, 'https:')).host.slice(0, 200);
  } catch {
    throw new Refused(
      422,
      'no-address',
      'This is no address; it looks like https://calendar.example/closing-days.ics.',
      'address',
    );
  }
}

const context = (id: string) => `calendar-feed ${id}`;

/** Reads a calendar of somebody else's for hours from now on: at once, then a few times a day. */
export async function setFeed(actor: Actor, hours: string, address: string): Promise<CalendarFeed> {
  const label = await demandHours(actor, hours, 'edit');
  const shown = shownOf(address);
  const id = uuid();
  await writing(async (c) => {
    await change(c, 'DELETE FROM calendar_feed WHERE hours = ?', [hours]);
    await change(
      c,
      'INSERT INTO calendar_feed (id, hours, address, shown, made_at, made_by) VALUES (?, ?, ?, ?, ?, ?)',
      [id, hours, seal(address, context(id)), shown, new Date(), actor.account],
    );
    await recordHistory(c, actor, { action: 'calendar-feed-set', object: hours, of: label, detail: { host: shown } });
  });
  return readFeed(actor, hours);
}

/** Reads the feed of hours now. What can't be read leaves what was read before as it was. */
export async function readFeed(actor: Actor, hours: string): Promise<CalendarFeed> {
  await demandHours(actor, hours, 'edit');
  const row = await feedOf(hours);
  if (!row) throw new Refused(404, 'no-feed', 'No calendar is read for these hours.');
  await readOne(row);
  return told(actor, hours, (await feedOf(hours))!);
}

export async function dropFeed(actor: Actor, hours: string): Promise<void> {
  const label = await demandHours(actor, hours, 'edit');
  await writing(async (c) => {
    if ((await change(c, 'DELETE FROM calendar_feed WHERE hours = ?', [hours])) === 0)
      throw new Refused(404, 'no-feed', 'No calendar is read for these hours.');
    await recordHistory(c, actor, { action: 'calendar-feed-dropped', object: hours, of: label });
  });
}

async function readOne(row: FeedRow): Promise<void> {
  const got = await fetchCalendar(unseal(row.address, context(row.id)));
  const read = got.ok
    ? await ask('feedDates', { id: row.hours, text: got.text })
    : { ok: false as const, why: got.why };
  const outcome = read.ok
    ? `${read.dates.length} ${read.dates.length === 1 ? 'date' : 'dates'} read${read.notCarried > 0 ? `; ${read.notCarried} entries say nothing about opening hours` : ''}`
    : `It could not be read: ${read.why}.`;
  await writing((c) =>
    change(c, `UPDATE calendar_feed SET read_at = ?, outcome = ?${read.ok ? ', dates = ?' : ''} WHERE id = ?`, [
      new Date(),
      outcome.slice(0, 300),
      ...(read.ok ? [JSON.stringify(read.dates)] : []),
      row.id,
    ]),
  );
}

/** Reads the feed that has waited longest, if any is due; false when none is. */
export async function readDueFeed(): Promise<boolean> {
  const [due] = await reading((c) =>
    rows<FeedRow>(c, 'SELECT * FROM calendar_feed WHERE read_at IS NULL OR read_at < ? ORDER BY read_at LIMIT 1', [
      new Date(Date.now() - READ_EVERY_MS),
    ]),
  );
  if (!due) return false;
  await readOne(due);
  return true;
}
