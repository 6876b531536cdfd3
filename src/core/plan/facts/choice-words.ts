/** Choices that need more than their own name. */
const WORDS: Record<string, string> = {
  'sip-registration': 'SIP with registration',
  'sip-peer': 'SIP peer, known by address',
  isdn: 'ISDN primary rate',
  plus: 'with country code and +, as +441632960150',
  digits: 'with country code, as 441632960150',
  national: 'national, as 01632960150',
  significant: 'national without prefix, as 1632960150',
  subscriber: 'inside the area, as 960150',
  international: 'with country code, as 441632960150',
  virtual: 'routing only',
  usual: 'the usual number',
  extension: 'the extension',
  hidden: 'no number',
  fixed: 'one fixed number',
  organisation: 'one for the organisation',
  site: 'one for each site',
};

/** A choice in words for people. */
export function choiceWords(choice: string): string {
  return WORDS[choice] ?? choice.replaceAll('-', ' ');
}
