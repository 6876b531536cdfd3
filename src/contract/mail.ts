import { z } from 'zod';
import { done, type Facts } from './operation';

/* Mail that goes out: by whose server, and what became of it. */

export const MAIL_SECURITY = ['none', 'starttls', 'tls'] as const;
export const MAIL_STATES = ['waiting', 'sent', 'failed', 'dropped'] as const;

export const mailSettingsSchema = z.strictObject({
  host: z
    .string()
    .trim()
    .min(1, 'is empty; give the name of your mail server')
    .max(253)
    .regex(/^[A-Za-z0-9.:-]+$/, 'is no name of a server, such as mail.lanternfold.example')
    .meta({ title: 'Mail server' }),
  port: z.number().int().min(1).max(65_535).meta({ title: 'Port' }),
  security: z.enum(MAIL_SECURITY).meta({ title: 'Security' }),
  user: z.string().trim().max(200).default('').meta({ title: 'User' }),
  /** null: as it was */
  password: z.string().max(200).nullable().default(null).meta({ title: 'Password' }),
  sender: z.email('is no e-mail address, such as phones@lanternfold.example').max(254).meta({ title: 'Sender' }),
  /** where people reach our pages, for links in mails */
  pages: z
    .url({ protocol: /^https?$/, error: 'is no address of pages, such as https://phones.lanternfold.example' })
    .max(200)
    .transform((u) => (u.endsWith('/') ? u.slice(0, -1) : u))
    .meta({ title: 'Address of these pages' }),
});
export type MailSettingsInput = z.output<typeof mailSettingsSchema>;

const settings = z.strictObject({
  host: z.string(),
  port: z.number(),
  security: z.enum(MAIL_SECURITY),
  user: z.string(),
  hasPassword: z.boolean(),
  sender: z.string(),
  pages: z.string(),
});
export type MailSettings = z.output<typeof settings>;

const mail = z.strictObject({
  id: z.string(),
  madeAt: z.string(),
  to: z.string(),
  subject: z.string(),
  about: z.string(),
  state: z.enum(MAIL_STATES),
  attempts: z.number(),
  sentAt: z.string().nullable(),
  /** what the server answered last */
  said: z.string(),
});
export type Mail = z.output<typeof mail>;

export const mailFacts = {
  mailSettings: {
    summary: 'By which server mail goes out; null: none is set, and none goes',
    right: 'changeSettings',
    answer: z.strictObject({ settings: settings.nullable() }),
  },
  setMailSettings: {
    summary: 'Set the server by which mail goes out; it acts at once',
    right: 'changeSettings',
    body: mailSettingsSchema,
    answer: done,
  },
  tryMail: {
    summary: 'Send a mail now and say what the server answers',
    right: 'changeSettings',
    body: z.strictObject({ to: z.email('is no e-mail address').max(254).meta({ title: 'To' }) }),
    answer: z.strictObject({ said: z.string() }),
  },
  mails: {
    summary: 'Mail of the last time, the newest first, with what became of it',
    right: 'changeSettings',
    answer: z.strictObject({ mails: z.array(mail) }),
  },
} as const satisfies Record<string, Facts>;
