/* What a greeting promises: which key is for what, read from its text. */

/** A key named in a greeting, and what it is said to be for. */
export interface SpokenKey {
  key: string;
  /** the words before or after it, without those that press; empty where only the key is named */
  what: string;
}

/** Keys by their names in the languages of the phrases. */
const NAMES: Readonly<Record<string, string>> = {
  zero: '0', one: '1', two: '2', three: '3', four: '4', five: '5', six: '6', seven: '7', eight: '8', nine: '9', star: '*', hash: '#', pound: '#',
  noll: '0', ett: '1', två: '2', tre: '3', fyra: '4', fem: '5', sex: '6', sju: '7', åtta: '8', nio: '9', stjärna: '*', fyrkant: '#',
  null: '0', eins: '1', zwei: '2', drei: '3', vier: '4', fünf: '5', sechs: '6', sieben: '7', acht: '8', neun: '9', stern: '*', sterntaste: '*', raute: '#', rautetaste: '#',
}; // prettier-ignore

const KEY = `([0-9*#]|${Object.keys(NAMES).join('|')})(?![\\p{L}0-9])`;
const PRESS = '(?:press|dial|choose|tryck(?:er)?(?: på)?|välj|slå|drücken(?: sie)?|wählen(?: sie)?|drück|taste)';
const THE = '(?:the |key |knapp(?:en)? |die |taste |eine? )*';
const FOR = '(?:for|to reach|to|för|till|für|zum|zur|zu)';

/** “for freight press 3”, then “press 3 for freight”. */
const BEFORE = new RegExp(`(?<![\\p{L}])${FOR} ([^,.;:!?]{2,60}?),? ${PRESS} ${THE}${KEY}`, 'giu');
const AFTER = new RegExp(`${PRESS} ${THE}${KEY}(?: ${FOR} ([^,.;:!?]{2,60}?)(?=[,.;:!?]|$| and | och | und ))?`, 'giu');
/** “freight 3”, a part of a sentence in which another key is pressed. */
const ALONE = new RegExp(`^(.{2,60}),? ${KEY}$`, 'iu');
const PARTS = /[,.;:!?]| and | och | und /iu;
const PRESSED = new RegExp(`(?:^|\\s)${PRESS}(?:\\s|$)`, 'iu');

const keyOf = (text: string): string => NAMES[text.toLowerCase()] ?? text;
const tidy = (text: string): string =>
  text
    .trim()
    .replace(/^(?:and|or|och|eller|und|oder|the|our|a|an|den|die|das|der|dem|unser\p{L}*|vår\p{L}*)\s+/iu, '')
    .trim();

/** Keys named in a greeting in English, Swedish or German, in the order of their first naming; each once. */
export function spokenKeys(text: string): SpokenKey[] {
  const flat = text.replace(/<[^<>]*>/g, ' ').replace(/\s+/g, ' ');
  const found = new Map<string, { what: string; at: number }>();
  const add = (key: string, what: string, at: number) => {
    const known = found.get(keyOf(key));
    if (!known || (known.what === '' && what !== '')) found.set(keyOf(key), { what: tidy(what), at: known?.at ?? at });
  };
  for (const m of flat.matchAll(BEFORE)) add(m[2]!, m[1]!, m.index);
  for (const m of flat.matchAll(AFTER)) add(m[1]!, m[2] ?? '', m.index);
  // A list goes on without saying each time that a key is pressed.
  if (found.size > 0)
    for (const part of flat.split(PARTS)) {
      const m = ALONE.exec(part.trim());
      if (m && !PRESSED.test(m[1]!) && !found.has(keyOf(m[2]!))) add(m[2]!, m[1]!, flat.indexOf(part));
    }
  return [...found].sort((a, b) => a[1].at - b[1].at).map(([key, { what }]) => ({ key, what }));
}
