import { createHash } from 'node:crypto';
import { PHRASES, PHRASE_LANGUAGES, PHRASE_TEXTS } from '@/core/plan/facts/phrases';
import { Refused } from '../access/rights';
import { change, reading, rows, writing } from '../db/pool';
import { prepared } from './prepare';
import { speechMissing, spokenText } from './speak';
import { keepSound, wavOfSound } from './store';

/* The phrases of the exchange, spoken once for each language by the speech program, and again when their text is another. */

const sumOf = (text: string) => createHash('sha256').update(text).digest('hex');

/** Phrases without a part that is only known when they are said. */
const WHOLE = PHRASE_LANGUAGES.flatMap((language) =>
  PHRASES.map((phrase) => ({ phrase, language, text: PHRASE_TEXTS[language][phrase] })),
).filter((p) => !p.text.includes('{'));

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
  const left = WHOLE.filter((p) => !known.has(`${p.phrase} ${p.language} ${sumOf(p.text)}`));
  if (left.length === 0 || (await speechMissing())) return;
  for (const { phrase, language, text } of left) {
    if (!goesOn()) return;
    const sound = await keepSound(await prepared(await spokenText(text, language), null), null);
    await writing((c) =>
      change(
        c,
        'INSERT INTO phrase_sound (phrase, `language`, said, sound) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE said = VALUES(said), sound = VALUES(sound)',
        [phrase, language, sumOf(text), sound.id],
      ),
    );
  }
}

/** A phrase as a WAV file; refused where it has not been spoken. */
export async function wavOfPhrase(phrase: string, language: string): Promise<Uint8Array> {
  const [found] = await reading((c) =>
    rows<{ sound: string }>(c, 'SELECT sound FROM phrase_sound WHERE phrase = ? AND `language` = ?', [
      phrase,
      language,
    ]),
  );
  if (!found) throw new Refused(404, 'no-such-sound', 'This phrase has not been spoken in that language.', 'phrase');
  return wavOfSound(found.sound, 16_000);
}
