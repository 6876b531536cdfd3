import { v7 as uuid } from 'uuid';
import type { mailFacts } from '@/contract/mail';
import { Refused } from '../access/rights';
import { reading } from '../db/pool';
import { listMail } from '../mail/queue';
import { mailServer, mailSettings, setMailSettings } from '../mail/settings';
import { handOver, refusalWords } from '../mail/transport';
import type { Handlers } from './handler';

/** Sends a mail now, by the server that is set; refused with what the server said. */
async function tried(to: string): Promise<{ said: string }> {
  const server = await mailServer();
  if (!server) throw new Refused(409, 'no-mail-server', 'No mail server is set yet; save one first.');
  const text = `This is a trial mail. Whoever looks after ${server.pages} has sent it.`;
  try {
    return { said: await handOver(server, { id: uuid(), to, subject: 'Polydrome: trial', text, sound: null }) };
  } catch (e) {
    throw new Refused(422, 'mail-refused', `${server.host} did not take it: ${refusalWords(e)}`, 'to');
  }
}

export const mailHandlers: Handlers<keyof typeof mailFacts> = {
  mailSettings: async () => ({ settings: await reading(mailSettings) }),
  setMailSettings: ({ actor, body }) => setMailSettings(actor, body),
  tryMail: ({ body }) => tried(body.to),
  mails: async () => ({ mails: await listMail() }),
};
