import type { MailSettings, MailSettingsInput } from '@/contract/mail';
import { recordHistory } from '../access/history';
import { demand, type Actor } from '../access/rights';
import { seal, unseal } from '../access/secrets';
import { change, reading, rows, writing, type Reader } from '../db/pool';

/* By which server mail goes out. Its password is sealed, and told to nobody. */

const CONTEXT = 'mail password';

interface SettingRow {
  host: string;
  port: number;
  security: MailSettings['security'];
  user_name: string;
  password: Buffer | null;
  sender: string;
  pages: string;
}

const rowOf = async (c: Reader): Promise<SettingRow | null> =>
  (
    await rows<SettingRow>(
      c,
      'SELECT host, port, security, user_name, password, sender, pages FROM mail_setting WHERE id = 1',
    )
  )[0] ?? null;

/** What is set; null: nothing, and no mail goes out. */
export async function mailSettings(c: Reader): Promise<MailSettings | null> {
  const found = await rowOf(c);
  if (!found) return null;
  const { host, port, security, user_name: user, password, sender, pages } = found;
  return { host, port, security, user, hasPassword: password !== null, sender, pages };
}

/** The same with the password, for whoever sends. */
export async function mailServer(): Promise<(MailSettings & { password: string | null }) | null> {
  return reading(async (c) => {
    const [found, set] = [await rowOf(c), await mailSettings(c)];
    return set && { ...set, password: found?.password ? unseal(found.password, CONTEXT) : null };
  });
}

/** Sets the server; a password of null stays as it was, an empty one is none. */
export async function setMailSettings(actor: Actor, input: MailSettingsInput): Promise<void> {
  demand(actor, 'changeSettings');
  await writing(async (c) => {
    const before = await rowOf(c);
    const password =
      input.password === null
        ? (before?.password ?? null)
        : input.password === ''
          ? null
          : seal(input.password, CONTEXT);
    await change(
      c,
      'REPLACE INTO mail_setting (id, host, port, security, user_name, password, sender, pages) VALUES (1, ?, ?, ?, ?, ?, ?, ?)',
      [input.host, input.port, input.security, input.user, password, input.sender, input.pages],
    );
    const { password: given, ...rest } = input;
    const detail = { ...rest, ...(given === null ? {} : { password: given === '' ? 'none' : 'another' }) };
    await recordHistory(c, actor, { action: 'mail-settings-changed', detail });
  });
}
