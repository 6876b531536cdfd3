import { createHash } from 'node:crypto';
import { PHRASES, PHRASE_LANGUAGES, PHRASE_TEXTS, saidWith, type Phrase } from '@/core/plan/facts/phrases';
import { change, reading, rows, writing } from '../db/pool';
import { madeReady } from './make';
import { prepared, wavOf, type Prepared } from './prepare';
import { speechMissing, spokenText } from './speak';
import { keepSound, wavOfSound } from './store';
import { inTurn } from './turn';

/*
 * The phrases of the exchange, spoken once for each language by the speech program, and again when their text is another. What
 * is only known at the time (a place in a queue, minutes, a key) is spoken when it is first heard, the small figures before.
 */

const sumOf = (text: string) => createHash('sha256').update(text).digest('hex');

/** Figures that are spoken before anybody hears them. */
const FIGURES = ['1', '2', '3', '4', '5'];

interface Text {
  phrase: Phrase;
  /** BCP 47 */
  language: string;
  text: string;
}

const AT_SETUP: readonly Text[] = PHRASE_LANGUAGES.flatMap((language) =>
  PHRASES.flatMap((phrase) => {
    const text = PHRASE_TEXTS[language][phrase];
    const all = text.includes('{') ? FIGURES.map((f) => saidWith(text, f)) : [text];
    return all.map((t) => ({ phrase, language, text: t }));
  }),
);

/** Speaks what is not spoken yet, one after the other, until `goesOn` says no; nothing where the program is missing. */
export async function speakPhrases(goesOn: () => boolean): Promise<void> {
  const there = await reading((c) =>
    rows<{ phrase: string; language: string; said: string }>(
      c,
      'SELECT phrase, `language`, said FROM phrase_sound',
      [],
    ),
  );
  const known = new Set(there.map((r) => `${r.phrase} ${r.language} ${r.said}`));
  const left = AT_SETUP.filter((p) => !known.has(`${p.phrase} ${p.language} ${sumOf(p.text)}`));
  if (left.length === 0 || (await speechMissing())) return;
  for (const text of left) {
    if (!goesOn()) return;
    await keepPhrase(text, await prepared(await spokenText(text.text, text.language), null));
  }
}

async function keepPhrase({ phrase, language, text }: Text, made: Prepared): Promise<string> {
  const { id } = await keepSound({ ...made, facts: { ...made.facts, said: text } }, null);
  await writing((c) =>
    change(
      c,
      'INSERT INTO phrase_sound (phrase, `language`, said, sound) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE sound = VALUES(sound)',
      [phrase, language, sumOf(text), id],
    ),
  );
  return id;
}

/** Figures of more digits are seldom heard: they are spoken each time, so that nobody fills the database by asking. */
const MOST_KEPT_DIGITS = 2;

/** What a phrase says, as a WAV file: as it was spoken before, else spoken now. Refused where the program is missing. */
export async function wavOfPhrase(said: Text, figure = '', signal?: AbortSignal): Promise<Uint8Array> {
  const [found] = await reading((c) =>
    rows<{ sound: string }>(c, 'SELECT sound FROM phrase_sound WHERE phrase = ? AND `language` = ? AND said = ?', [
      said.phrase,
      said.language,
      sumOf(said.text),
    ]),
  );
  if (found) return wavOfSound(found.sound, 16_000);
  const spoken = await inTurn(signal, () => spokenText(said.text, said.language));
  const made = await madeReady(spoken, { field: 'phrase', signal });
  if (figure.length > MOST_KEPT_DIGITS) return wavOf(made.samples[16_000], 16_000);
  return wavOfSound(await keepPhrase(said, made), 16_000);
}
