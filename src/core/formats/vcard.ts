import ICAL from 'ical.js';

/** One entry of a directory. */
export interface Card {
  uid: string;
  name: string;
  kind: 'individual' | 'location';
  organisation: string;
  unit: string;
  email: string | null;
  /** E.164 with +, or null for one that is reached from inside only */
  number: string | null;
  /** extension digits */
  extension: string;
  language: string | null;
}

/** Cards as vCard 4.0 (RFC 6350); telephone numbers are `tel` addresses (RFC 3966), an extension without a number a local one. */
export function writeCards(cards: readonly Card[], context: string): string {
  return cards.map((c) => writeCard(c, context)).join('');
}

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

function writeCard(card: Card, context: string): string {
  const component = new ICAL.Component(['vcard', [], []]);
  const add = (
    name: string,
    value: string | string[],
    parameters: Record<string, string | string[]> = {},
    type?: string,
  ) => {
    const property = new ICAL.Property([name, parameters, type ?? 'text', value], component);
    component.addProperty(property);
  };
  add('version', '4.0');
  if (UUID.test(card.uid)) add('uid', `urn:uuid:${card.uid}`, {}, 'uri');
  else add('uid', card.uid, { value: 'text' });
  add('kind', card.kind);
  add('fn', card.name);
  if (card.kind === 'individual') {
    const [given = '', ...rest] = card.name.split(' ');
    add('n', [rest.join(' '), given, '', '', ''] as never);
  }
  add('org', [card.organisation, card.unit].filter(Boolean) as never);
  const tel = card.number ? `tel:${card.number}` : `tel:${card.extension};phone-context=${context}`;
  add('tel', tel, { value: 'uri', type: ['work', 'voice'], pref: '1' }, 'uri');
  if (card.number)
    add('tel', `tel:${card.extension};phone-context=${context}`, { value: 'uri', type: ['work', 'voice'] }, 'uri');
  if (card.email) add('email', card.email, { type: 'work' });
  if (card.language) add('lang', card.language, {}, 'language-tag');
  return `${ICAL.stringify.component(component.toJSON() as never, ICAL.design.vcard as never)}\r\n`;
}
