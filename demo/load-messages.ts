import { v7 as uuid } from 'uuid';
import { hash } from '@node-rs/argon2';
import type { MessageSituation } from '@/core/plan/facts/message-situations';
import { ARGON } from '@/server/access/accounts';
import type { Actor } from '@/server/access/rights';
import { change, rows, writing } from '@/server/db/pool';
import { addEntry } from '@/server/state/entries';
import { insertMessage, insertSound } from '@/server/messages/rows';
import { keepAccount } from '@/server/own/join';
import { prepared } from '@/server/sound/prepare';
import { speechMissing, spokenText } from '@/server/sound/speak';

/* Messages that callers left at the demo company, mail by the stand-in, and one person who has a page of their own. */

interface Left {
  mailbox: string;
  daysAgo: number;
  calling: string | null;
  name: string;
  situation: MessageSituation;
  language: string;
  says: string;
  heard: boolean;
}

const left = (
  mailbox: string,
  daysAgo: number,
  from: [string | null, string],
  says: string,
  rest: Partial<Left> = {},
) => ({
  mailbox,
  daysAgo,
  calling: from[0],
  name: from[1],
  situation: 'no answer' as MessageSituation,
  language: 'en',
  heard: false,
  says,
  ...rest,
});

const MESSAGES: Left[] = [
  left(
    'm-bookings',
    0.1,
    ['+441632960777', 'Corin Hale'],
    'Hello, this is Corin Hale. I want to move my car from Friday to Saturday, booking four four one seven. Please call me back.',
  ),
  left('m-bookings', 0.4, ['+441632960812', ''], 'Good morning. Do you take dogs in the cabins? Thank you.'),
  left('m-bookings', 1.2, [null, ''], 'I waited ten minutes and nobody came. I will try again tomorrow.', {
    heard: true,
  }),
  left('m-bookings', 2.3, ['+46317011234', ''], 'Hej, jag vill boka en hytt för fyra personer till Hamburg.', {
    language: 'sv',
  }),
  left(
    'm-2102',
    0.2,
    ['+441632960777', 'Corin Hale'],
    'Ilse, it is Corin. The contract is signed, you have it by post.',
    { situation: 'busy' },
  ),
  left(
    'm-2102',
    1.6,
    ['2104', 'Amara Lindqvist'],
    'Hi Ilse, the rota for December is ready. Have a look when you are back.',
  ),
  left(
    'm-2102',
    5.0,
    ['+4940333555', ''],
    'Guten Tag, hier ist die Hafenverwaltung. Bitte rufen Sie wegen des Liegeplatzes zurück.',
    {
      language: 'de',
      situation: 'away',
      heard: true,
    },
  ),
];

/** A person of the demo who signs in: name, password. */
const ILSE = ['ilse.brandvik@lanternfold.example', 'harbour-thistle-58'] as const;

/** Leaves the messages, each spoken; where nothing can speak there are none. */
export async function loadMessages(now: number): Promise<void> {
  if (await speechMissing()) return;
  for (const m of MESSAGES) {
    const made = await prepared(await spokenText(m.says, m.language), null);
    const received = new Date(now - m.daysAgo * 86_400_000);
    const id = uuid();
    await writing(async (c) => {
      await insertMessage(c, {
        id,
        mailbox: m.mailbox,
        received,
        calling: m.calling,
        callingName: m.name,
        situation: m.situation,
        seconds: made.seconds,
        peaks: made.facts.peaks,
        forwarded: null,
      });
      await insertSound(c, id, made.samples[8000]);
      if (m.heard)
        await change(c, 'UPDATE message SET heard_at = ? WHERE id = ?', [new Date(received.getTime() + 3_600_000), id]);
    });
  }
}

/** Some agents of the bookings queue have signed in this morning, and one is at lunch. */
export async function agentsSignIn(by: Actor): Promise<void> {
  const since = new Date(Date.now() - 7_200_000);
  await writing(async (c) => {
    for (const id of ['e-2108', 'e-2109', 'e-2111', 'e-2114'])
      await addEntry(c, by, { kind: 'signed-in', subject: id, value: {} }, { since, until: null });
    const lunch = { kind: 'paused', subject: 'e-2111', value: { reason: 'lunch' } } as const;
    await addEntry(c, by, lunch, { since, until: null });
  });
}

/** Ilse Brandvik has chosen a password for her page. */
export async function ilseJoins(): Promise<void> {
  const [signIn, password] = ILSE;
  const hashed = await hash(password, ARGON);
  await writing((c) =>
    keepAccount(c, { person: 'p-2102', sign_in: signIn, name: 'Ilse Brandvik', hashed, demo: true }),
  );
}

/** Mail goes to the stand-in that runs beside the demo, wherever it listens this time; a server of somebody's own stays. */
export async function mailToStandIn(): Promise<void> {
  const port = Number(process.env.POLYDROME_MAIL_PORT);
  const pages = `http://127.0.0.1:${process.env.POLYDROME_PORT}`;
  await writing(async (c) => {
    const [set] = await rows<{ host: string }>(c, 'SELECT host FROM mail_setting WHERE id = 1');
    if (set && set.host !== '127.0.0.1') return;
    await change(
      c,
      "REPLACE INTO mail_setting (id, host, port, security, user_name, password, sender, pages) VALUES (1, '127.0.0.1', ?, 'none', '', NULL, 'phones@lanternfold.example', ?)",
      [port, pages],
    );
  });
}
