import { v7 as uuid } from 'uuid';
import type { CallPage } from '@/contract/board';
import { showNumber } from '@/core/numbers';
import { countUse } from '../access/limits';
import { Refused } from '../access/rights';
import { change, reading, rows, writing } from '../db/pool';
import { ask } from '../engine';
import type { CallPageFacts } from '../engine/questions/call-pages';
import { addMail } from '../mail/queue';
import { mailSettings } from '../mail/settings';
import { wishMail } from '../mail/wish-words';
import { piecesAround, situationAt } from '../state/situation';
import { recordHistory } from '../access/history';

/* The public page of a queue or a person. It needs no account, keeps no cookie, and tells nothing but what stands on it. */

/** Requests for a call back: from one address, and to one number, within a day; and open ones of one queue. */
const FROM_ADDRESS = 5;
const TO_NUMBER = 2;
/** Numbers that one address may write within an hour, wrong ones too. */
const TRIES_AN_HOUR = 30;
const OPEN = 200;
const DAY_SECONDS = 86_400;
/** Calls of the last so many minutes say how long callers wait now. */
const LATELY_MINUTES = 60;
const FEWEST_CALLS = 3;

const none = () => new Refused(404, 'no-such-page', 'There is no page of that name.', 'page');

async function factsOf(page: string): Promise<CallPageFacts> {
  if (!/^[a-z0-9-]{2,40}$/.test(page)) throw none();
  const now = Date.now();
  const [situation, pieces] = [await situationAt(now), await piecesAround(now)];
  const facts = await ask('callPageFacts', { page, now, situation, pieces });
  if (!facts) throw none();
  return facts;
}

/** What anybody may see there. */
export async function readCallPage(page: string): Promise<CallPage> {
  const facts = await factsOf(page);
  const { kind, id, name, organisation, language, open, zone, e164, country } = facts;
  return {
    whose: kind === 'queue' ? 'queue' : 'person',
    name,
    organisation,
    language,
    open,
    zone,
    until: facts.until === null ? null : new Date(facts.until).toISOString(),
    waitMinutes: open && kind === 'queue' ? await waitOf(id) : null,
    number: e164 === null ? null : { e164, shown: showNumber(e164, country) },
  };
}

/** Whole minutes that the middle one of the callers of the last hour waited; null when there were too few. */
async function waitOf(queue: string): Promise<number | null> {
  const found = await reading((c) =>
    rows<{ waited: number }>(
      c,
      'SELECT waited_seconds AS waited FROM call_record WHERE queue = ? AND started >= ? AND waited_seconds IS NOT NULL ORDER BY waited_seconds LIMIT 1000',
      [queue, new Date(Date.now() - LATELY_MINUTES * 60_000)],
    ),
  );
  if (found.length < FEWEST_CALLS) return null;
  return Math.max(1, Math.ceil(found[Math.floor(found.length / 2)]!.waited / 60));
}

/** Keeps a wish to be called back; the same number asked for again is one wish. */
export async function askCallback(
  page: string,
  { number, name }: { number: string; name: string },
  address: string,
): Promise<{ shown: string }> {
  const facts = await factsOf(page);
  await countUse(`number from ${address}`, TRIES_AN_HOUR, 3600);
  const { e164, why } = await ask('callbackNumber', { page, text: number });
  if (e164 === null) throw new Refused(422, 'bad-number', why, 'number');
  await countUse(`call back from ${address}`, FROM_ADDRESS, DAY_SECONDS);
  await countUse(`call back to ${facts.id} ${e164}`, TO_NUMBER, DAY_SECONDS);
  await writing(async (c) => {
    const open = await rows<{ id: string; calling: string }>(
      c,
      'SELECT id, calling FROM callback_request WHERE queue = ? AND done_at IS NULL FOR UPDATE',
      [facts.id],
    );
    if (open.some((o) => o.calling === e164)) return;
    if (open.length >= OPEN)
      throw new Refused(429, 'too-many', 'Too many wait for a call already; please call instead.', 'number');
    await change(c, 'INSERT INTO callback_request (id, queue, at, calling, name) VALUES (?, ?, ?, ?, ?)', [
      uuid(),
      facts.id,
      new Date(),
      e164,
      name,
    ]);
    await recordHistory(
      c,
      { account: null, address },
      {
        action: 'callback-asked',
        object: facts.id,
        of: facts.name,
        detail: { name: 'somebody on the public page' },
      },
    );
    const settings = facts.email === null ? null : await mailSettings(c);
    if (facts.email !== null && settings)
      await addMail(c, {
        ...wishMail({ number: showNumber(e164, facts.country), name, page: `${settings.pages}/own` }, facts.language),
        to: facts.email,
        about: 'queue',
      });
  });
  return { shown: showNumber(e164, facts.country) };
}
