import type { PhraseLanguage } from '@/core/plan/facts/phrases';
import { languageOf } from './words';

/** Somebody who wants to be called: their number as people write it, and the name they gave, which may be empty. */
interface Wish {
  number: string;
  name: string;
  /** where the person who is asked sees it */
  page: string;
}

const WORDS: Record<PhraseLanguage, (who: string) => [subject: string, text: string]> = {
  en: (who) => [`${who} wants to be called`, `${who} asked on your public page to be called back.`],
  sv: (who) => [`${who} vill bli uppringd`, `${who} bad på din publika sida om att bli uppringd.`],
  de: (who) => [`${who} möchte angerufen werden`, `${who} hat auf Ihrer öffentlichen Seite um einen Anruf gebeten.`],
};

/** A notice to a person that somebody asked on their public page to be called, in their language. */
export function wishMail({ number, name, page }: Wish, language: string): { subject: string; text: string } {
  const [subject, text] = WORDS[languageOf(language)](name === '' ? number : `${name} (${number})`);
  return { subject, text: `${text}\n\n${page}` };
}
