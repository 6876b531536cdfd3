import type { PhraseLanguage } from '@/core/plan/facts/phrases';
import { lasting, languageOf, writtenAt } from './words';

/** Something of a queue that its managers are told. */
export interface QueueTold {
  what: 'gave up' | 'waits long' | 'nobody there' | 'paused';
  /** who it is about; null: a hidden number, or nobody in particular */
  caller: string | null;
  seconds: number;
  at: Date;
  /** a message that was left instead */
  message: string | null;
}

type Words = Record<QueueTold['what'], (queue: string, who: string, seconds: string, at: string) => [string, string]>;

const WORDS: Record<PhraseLanguage, Words> = {
  en: {
    'gave up': (q, who, s, at) => [`${q}: a caller gave up`, `${who} gave up after waiting ${s}, on ${at}.`],
    'waits long': (q, who, s, at) => [`${q}: a caller waits long`, `${who} has waited ${s} by now, since ${at}.`],
    'nobody there': (q, _w, _s, at) => [`${q}: nobody is signed in`, `Callers wait and nobody is signed in, on ${at}.`],
    paused: (q, who, _s, at) => [`${q}: ${who} is paused`, `${who} let offers go and is paused since ${at}.`],
  },
  sv: {
    'gave up': (q, who, s, at) => [`${q}: en uppringare gav upp`, `${who} gav upp efter ${s} väntan, ${at}.`],
    'waits long': (q, who, s, at) => [`${q}: en uppringare väntar länge`, `${who} har väntat ${s}, sedan ${at}.`],
    'nobody there': (q, _w, _s, at) => [`${q}: ingen är inloggad`, `Uppringare väntar och ingen är inloggad, ${at}.`],
    paused: (q, who, _s, at) => [`${q}: ${who} är pausad`, `${who} tog inte emot samtal och är pausad sedan ${at}.`],
  },
  de: {
    'gave up': (q, who, s, at) => [`${q}: ein Anrufer gab auf`, `${who} gab nach ${s} Warten auf, am ${at}.`],
    'waits long': (q, who, s, at) => [`${q}: ein Anrufer wartet lange`, `${who} wartet seit ${s}, seit ${at}.`],
    'nobody there': (q, _w, _s, at) => [
      `${q}: niemand ist angemeldet`,
      `Anrufer warten und niemand ist angemeldet, am ${at}.`,
    ],
    paused: (q, who, _s, at) => [`${q}: ${who} pausiert`, `${who} nahm Anrufe nicht an und pausiert seit ${at}.`],
  },
};

const HIDDEN: Record<PhraseLanguage, string> = {
  en: 'A caller who hides the number',
  sv: 'En uppringare med hemligt nummer',
  de: 'Jemand mit unterdrückter Nummer',
};

/** A notice to a manager, in their language. */
export function queueMail(
  { what, caller, seconds, at }: QueueTold,
  of: { queue: string; zone: string; language: string; page: string },
): { subject: string; text: string } {
  const tag = languageOf(of.language);
  const [subject, text] = WORDS[tag][what](
    of.queue,
    caller ?? HIDDEN[tag],
    lasting(seconds),
    writtenAt(at, of.zone, tag),
  );
  return { subject, text: `${text}\n\n${of.page}` };
}
