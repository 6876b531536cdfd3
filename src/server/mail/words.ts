import { DateTime } from 'luxon';
import { showNumber } from '@/core/numbers';
import { PHRASE_LANGUAGES, type PhraseLanguage } from '@/core/plan/facts/phrases';

/* What mails say, in the language of whoever reads them. */

interface Words {
  hidden: string;
  subject: (caller: string, mailbox: string) => string;
  message: (caller: string, at: string, seconds: string) => string;
  attached: string;
  hear: (page: string) => string;
  note: (by: string, note: string) => string;
  welcome: (name: string, organisation: string, page: string, until: string) => { subject: string; text: string };
}

const WORDS: Record<PhraseLanguage, Words> = {
  en: {
    hidden: 'a caller who hides the number',
    subject: (caller, mailbox) => `Message from ${caller} for ${mailbox}`,
    message: (caller, at, seconds) => `${caller} left a message on ${at}; it lasts ${seconds}.`,
    attached: 'The message is attached.',
    hear: (page) => `Hear it here: ${page}`,
    note: (by, note) => `Sent on by ${by}${note ? `: ${note}` : ''}`,
    welcome: (name, organisation, page, until) => ({
      subject: `Your telephone at ${organisation}`,
      text: `Good day ${name},\n\nyou have a page of your own for your telephone: where calls find you, your greeting, your messages and who called.\nChoose a password here, until ${until}:\n\n${page}\n\nWhoever has this link can open your page; send it to nobody.`,
    }),
  },
  sv: {
    hidden: 'en uppringare med hemligt nummer',
    subject: (caller, mailbox) => `Meddelande från ${caller} till ${mailbox}`,
    message: (caller, at, seconds) => `${caller} lämnade ett meddelande ${at}; det är ${seconds} långt.`,
    attached: 'Meddelandet är bifogat.',
    hear: (page) => `Lyssna här: ${page}`,
    note: (by, note) => `Skickat vidare av ${by}${note ? `: ${note}` : ''}`,
    welcome: (name, organisation, page, until) => ({
      subject: `Din telefon på ${organisation}`,
      text: `Hej ${name},\n\ndu har en egen sida för din telefon: var samtal når dig, din hälsning, dina meddelanden och vem som ringde.\nVälj ett lösenord här, senast ${until}:\n\n${page}\n\nDen som har länken kan öppna din sida; skicka den inte vidare.`,
    }),
  },
  de: {
    hidden: 'jemand mit unterdrückter Nummer',
    subject: (caller, mailbox) => `Nachricht von ${caller} für ${mailbox}`,
    message: (caller, at, seconds) => `${caller} hat am ${at} eine Nachricht hinterlassen; sie dauert ${seconds}.`,
    attached: 'Die Nachricht ist angehängt.',
    hear: (page) => `Hier anhören: ${page}`,
    note: (by, note) => `Weitergeleitet von ${by}${note ? `: ${note}` : ''}`,
    welcome: (name, organisation, page, until) => ({
      subject: `Ihr Telefon bei ${organisation}`,
      text: `Guten Tag ${name},\n\nSie haben eine eigene Seite für Ihr Telefon: wo Anrufe Sie finden, Ihre Ansage, Ihre Nachrichten und wer angerufen hat.\nWählen Sie hier bis ${until} ein Kennwort:\n\n${page}\n\nWer diesen Link hat, kann Ihre Seite öffnen; geben Sie ihn niemandem weiter.`,
    }),
  },
};

/** The nearest language that there are words in. */
export const languageOf = (tag: string): PhraseLanguage =>
  PHRASE_LANGUAGES.find((l) => l === tag.toLowerCase().split('-')[0]) ?? 'en';

/** A moment as people write it in a language. */
export const writtenAt = (moment: Date, zone: string, language: string) =>
  DateTime.fromJSDate(moment, { zone }).setLocale(language).toLocaleString(DateTime.DATETIME_FULL);

/** Minutes and seconds. */
export const lasting = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${String(Math.round(seconds % 60)).padStart(2, '0')}`;

/** What a notice of a message is made of. */
export interface MessageTold {
  /** the name of the mailbox, and where it is heard */
  mailbox: string;
  page: string;
  zone: string;
  country: string;
  language: string;
  calling: string | null;
  callingName: string;
  received: Date;
  seconds: number;
  forwarded: { by: string; note: string } | null;
  /** its sound goes along */
  attached: boolean;
}

/** The notice of a message: who called, when, how long, and where it is heard. */
export function messageMail(told: MessageTold): { subject: string; text: string } {
  const tag = languageOf(told.language);
  const words = WORDS[tag];
  const number = told.calling === null ? words.hidden : showNumber(told.calling, told.country);
  const caller = told.callingName === '' ? number : `${told.callingName} (${number})`;
  return {
    subject: words.subject(told.callingName || number, told.mailbox),
    text: [
      words.message(caller, writtenAt(told.received, told.zone, tag), lasting(told.seconds)),
      ...(told.forwarded ? [words.note(told.forwarded.by, told.forwarded.note)] : []),
      ...(told.attached ? [words.attached] : []),
      '',
      words.hear(told.page),
    ].join('\n'),
  };
}

/** The mail by which a person gets a page of their own. */
export const welcomeMail = (
  to: { name: string; language: string; zone: string; organisation: string },
  page: string,
  until: Date,
): { subject: string; text: string } => {
  const tag = languageOf(to.language);
  return WORDS[tag].welcome(to.name, to.organisation, page, writtenAt(until, to.zone, tag));
};
