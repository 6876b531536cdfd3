import { PHRASE_TEXTS, phraseLanguage, saidWith, saysFigure, secondsToSay, type Phrase, type Prompt } from '../plan';
import type { Exchange } from './exchange';

/** Something that the caller hears: a prompt of the plan, or a phrase of the exchange. */
export interface Heard {
  prompt: string | null;
  phrase: Phrase | null;
  /** in which it is heard (BCP 47) */
  language: string;
  text: string;
  /** how long it takes to the end */
  seconds: number;
  /** what stands in the place of braces in a phrase; null: nothing does */
  figure: string | null;
  /** SHA-256 of the recording; null: nothing is recorded, or a phrase as it came with the program or with a figure */
  sound: string | null;
}

/** Something heard on the way of a call, to be held against what another hears: what is said as it is then is left out. */
export interface Hearing extends Pick<Heard, 'prompt' | 'phrase' | 'language' | 'text' | 'sound'> {
  /** in seconds since the first symbol */
  atSeconds: number;
  /** in seconds since the call came to where it is heard */
  until: number;
}

/** Whether the same is heard; `when`: also at the same time. */
export const isHeardAlike = (a: readonly Hearing[], b: readonly Hearing[], when: boolean): boolean =>
  a === b ||
  (a.length === b.length &&
    a.every((one, i) => {
      const other = b[i]!;
      return (
        one.prompt === other.prompt &&
        one.phrase === other.phrase &&
        one.language === other.language &&
        one.sound === other.sound &&
        one.text === other.text &&
        (!when || (one.atSeconds === other.atSeconds && one.until === other.until))
      );
    }));

type Version = Pick<Prompt, 'language' | 'text' | 'seconds' | 'sound'>;

/** The version of a prompt that is heard in a language (BCP 47): the same tag, else the same first part, else its own. */
export function versionOf(prompt: Prompt, language: string): Version {
  const wanted = language.toLowerCase();
  const all: Version[] = [prompt, ...prompt.versions];
  const first = (tag: string) => tag.toLowerCase().split('-')[0];
  return (
    all.find((v) => v.language.toLowerCase() === wanted) ??
    all.find((v) => first(v.language) === first(wanted)) ??
    prompt
  );
}

/** A prompt as it is heard in a language; null for no prompt. */
export function heardPrompt(exchange: Exchange, id: string | null, language: string): Heard | null {
  if (!id) return null;
  const prompt = exchange.prompts.get(id)!;
  return { prompt: id, phrase: null, figure: null, ...heardOf(prompt, language) };
}

function heardOf(prompt: Prompt, language: string): Pick<Heard, 'language' | 'text' | 'seconds' | 'sound'> {
  const { language: spokenIn, text, seconds, sound } = versionOf(prompt, language);
  return { language: spokenIn, text, seconds, sound };
}

/** Phrases in which nothing is said as it is at the time; each is made once. */
const WHOLE = new Map<string, Heard>();

/**
 * What the exchange says itself, in the organisation's own words where it has some. `figure` stands in the place of braces: no
 * recording says it, so such a text counts as long as it takes to say.
 */
export function heardPhrase(exchange: Exchange, phrase: Phrase, language: string, figure = ''): Heard {
  const own = exchange.phrases.get(phrase);
  if (own) {
    const said = heardOf(own, language);
    const asSaid = saysFigure(said.text) ? withFigure(said.text, figure) : { figure: null };
    return { prompt: own.id, phrase, ...said, ...asSaid };
  }
  const spokenIn = phraseLanguage(language);
  const whole = `${spokenIn} ${phrase}`;
  const known = WHOLE.get(whole);
  if (known) return known;
  const text = PHRASE_TEXTS[spokenIn][phrase];
  const base = { prompt: null, phrase, language: spokenIn };
  if (saysFigure(text)) return { ...base, ...withFigure(text, figure) };
  const heard = { ...base, figure: null, text, seconds: secondsToSay(text), sound: null };
  WHOLE.set(whole, heard);
  return heard;
}

function withFigure(text: string, figure: string): Pick<Heard, 'text' | 'figure' | 'seconds' | 'sound'> {
  const said = saidWith(text, figure);
  return { text: said, figure, seconds: secondsToSay(said), sound: null };
}

/** Seconds a prompt takes to hear; none for no prompt. */
export function promptSeconds(exchange: Exchange, id: string | null, language: string): number {
  return heardPrompt(exchange, id, language)?.seconds ?? 0;
}

/** A prompt in a sentence. */
export function spoken(exchange: Exchange, id: string | null): string {
  return id ? `“${exchange.prompts.get(id)!.name}”` : 'nothing';
}
