/* What the exchange itself says to callers, in our own words; an organisation may say each its own way by a prompt. */

export const PHRASES = [
  'hand-over',
  'wrong key',
  'ask extension',
  'ask name',
  'names',
  'nobody found',
  'closed',
  'position',
  'wait',
  'callback',
  'recording',
  'mailbox',
  'goodbye',
] as const;
export type Phrase = (typeof PHRASES)[number];

/** Languages in which every phrase is there from the beginning. */
export const PHRASE_LANGUAGES = ['en', 'sv', 'de'] as const;
export type PhraseLanguage = (typeof PHRASE_LANGUAGES)[number];

/** Each phrase in each language; a sign in braces is said as it is at the time. */
export const PHRASE_TEXTS: Record<PhraseLanguage, Record<Phrase, string>> = {
  en: {
    'hand-over': 'One moment, I am connecting you.',
    'wrong key': 'There is nothing behind that key.',
    'ask extension': 'Dial the extension, then the hash key.',
    'ask name': 'Spell the name on your keypad, three letters or more, first name or last name first.',
    names: 'I found several people.',
    'nobody found': 'I found nobody of that name.',
    closed: 'We are closed now.',
    position: 'You are number {position} in the queue.',
    wait: 'It will take about {minutes} minutes.',
    callback: 'Press {key} and we call you back. You keep your place.',
    recording: 'This call is recorded.',
    mailbox: 'Nobody can answer now. Leave a message after the tone.',
    goodbye: 'Thank you for calling. Goodbye.',
  },
  sv: {
    'hand-over': 'Ett ögonblick, jag kopplar dig.',
    'wrong key': 'Det finns inget på den knappen.',
    'ask extension': 'Slå anknytningen och avsluta med fyrkant.',
    'ask name': 'Bokstavera namnet på knapparna, minst tre bokstäver, förnamn eller efternamn först.',
    names: 'Jag hittade flera personer.',
    'nobody found': 'Jag hittade ingen med det namnet.',
    closed: 'Vi har stängt nu.',
    position: 'Du har plats nummer {position} i kön.',
    wait: 'Det tar ungefär {minutes} minuter.',
    callback: 'Tryck {key} så ringer vi upp dig. Du behåller din plats.',
    recording: 'Samtalet spelas in.',
    mailbox: 'Ingen kan svara nu. Lämna ett meddelande efter tonen.',
    goodbye: 'Tack för att du ringde. Hej då.',
  },
  de: {
    'hand-over': 'Einen Augenblick, ich verbinde Sie.',
    'wrong key': 'Auf dieser Taste liegt nichts.',
    'ask extension': 'Wählen Sie die Durchwahl und dann die Rautetaste.',
    'ask name': 'Buchstabieren Sie den Namen auf den Tasten, mindestens drei Buchstaben, Vorname oder Nachname zuerst.',
    names: 'Ich habe mehrere Personen gefunden.',
    'nobody found': 'Ich habe niemanden mit diesem Namen gefunden.',
    closed: 'Wir haben jetzt geschlossen.',
    position: 'Sie sind Nummer {position} in der Warteschlange.',
    wait: 'Es dauert etwa {minutes} Minuten.',
    callback: 'Drücken Sie {key}, dann rufen wir Sie zurück. Sie behalten Ihren Platz.',
    recording: 'Dieses Gespräch wird aufgezeichnet.',
    mailbox: 'Im Moment kann niemand antworten. Hinterlassen Sie eine Nachricht nach dem Ton.',
    goodbye: 'Vielen Dank für Ihren Anruf. Auf Wiederhören.',
  },
};

/** A figure or key stands in a phrase where it has braces. */
const BRACES = /\{\w+\}/g;

/** Whether something in a text is only known when it is said. */
export const saysFigure = (text: string): boolean => text.search(BRACES) >= 0;

/** A text with a figure or key in the place of its braces. */
export const saidWith = (text: string, figure: string): string => text.replace(BRACES, figure);

/** The language of the phrases that comes nearest to a tag (BCP 47): its first part, else English. */
export function phraseLanguage(tag: string): PhraseLanguage {
  const wanted = tag.toLowerCase();
  return PHRASE_LANGUAGES.find((l) => wanted === l || wanted.startsWith(`${l}-`)) ?? 'en';
}

/** Signs a second at which text is spoken, with what a sentence's end takes: a rule of thumb where nothing was recorded. */
const SIGNS_A_SECOND = 14;
const SENTENCE_SECONDS = 0.4;

/** About how many seconds a text takes to say; pauses written into it count as they are. */
export function secondsToSay(text: string): number {
  let pauses = 0;
  const said = text.replace(/<break time="(\d+(?:\.\d+)?)(ms|s)"\/>/g, (_, n: string, unit: string) => {
    pauses += Number(n) / (unit === 'ms' ? 1000 : 1);
    return ' ';
  });
  const signs = said.replace(/\s+/g, ' ').trim();
  if (signs === '') return pauses;
  const sentences = signs.split(/[.!?]+/).filter((s) => s.trim() !== '').length;
  return Math.round((signs.length / SIGNS_A_SECOND + sentences * SENTENCE_SECONDS + pauses) * 10) / 10;
}
