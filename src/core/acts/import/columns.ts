/* The columns of a sheet of people and extensions: what each is, and the names it goes by in sheets. */

export const COLUMN_KEYS = [
  'digits',
  'name',
  'kind',
  'site',
  'class',
  'person',
  'email',
  'teams',
  'language',
  'spelling',
  'numbers',
  'outgoingNumber',
  'withholdNumber',
  'ringSeconds',
  'mailbox',
  'pin',
  'mailTo',
  'attachSound',
  'afterMail',
  'place',
  'sipPassword',
  'note',
] as const;
export type ColumnKey = (typeof COLUMN_KEYS)[number];

export interface ColumnFacts {
  title: string;
  /** other names that sheets use, in small letters without blanks and signs */
  also: readonly string[];
  note: string;
  /** never written to a file */
  secret?: true;
}

export const COLUMNS: Record<ColumnKey, ColumnFacts> = {
  digits: {
    title: 'Extension',
    also: ['digits', 'ext', 'extn', 'extensionnumber', 'anknytning', 'durchwahl', 'nebenstelle'],
    note: 'What colleagues dial. A row with digits that exist changes that extension.',
  },
  name: {
    title: 'Name',
    also: ['displayname', 'fullname', 'namn', 'anzeigename', 'callername'],
    note: 'Shown on colleagues’ phones.',
  },
  kind: { title: 'Kind', also: ['type', 'typ', 'art'], note: 'person, place, fax or virtual. Empty: person.' },
  site: {
    title: 'Site',
    also: ['location', 'office', 'plats', 'ort', 'standort'],
    note: 'Name of the site. Empty: the site whose range holds the digits.',
  },
  class: {
    title: 'Class of service',
    also: ['class', 'cos', 'klass', 'klasse', 'berechtigung'],
    note: 'Name of the class.',
  },
  person: { title: 'Person', also: ['personname', 'user'], note: 'Name of the person. Empty: the name.' },
  email: { title: 'E-mail', also: ['mail', 'emailaddress', 'epost', 'mailadresse'], note: 'Of the person.' },
  teams: {
    title: 'Teams',
    also: ['team', 'group', 'department', 'avdelning', 'abteilung'],
    note: 'Names, with semicolons between.',
  },
  language: { title: 'Language', also: ['lang', 'sprak', 'språk', 'sprache'], note: 'BCP 47, such as sv.' },
  spelling: {
    title: 'Name in Latin letters',
    also: ['latinname', 'spelling'],
    note: 'For dialling by name on a keypad.',
  },
  numbers: {
    title: 'Own numbers',
    also: ['number', 'did', 'directnumber', 'ownnumber', 'phone', 'telephone', 'direktnummer', 'rufnummer', 'telefon'],
    note: 'Direct numbers of the inventory, in any spelling of the site; semicolons between.',
  },
  outgoingNumber: {
    title: 'Outgoing number',
    also: ['callerid', 'shownnumber', 'outgoing'],
    note: 'Shown outside instead of the own number.',
  },
  withholdNumber: { title: 'Withhold number', also: ['withhold', 'hidenumber'], note: 'yes or no.' },
  ringSeconds: { title: 'Rings for', also: ['ringseconds', 'ringtime'], note: 'Seconds, 5 to 180.' },
  mailbox: { title: 'Mailbox', also: ['voicemail', 'hasmailbox'], note: 'yes or no.' },
  pin: { title: 'PIN', also: ['mailboxpin', 'voicemailpin'], note: 'Of the mailbox; never exported.', secret: true },
  mailTo: { title: 'Mail messages to', also: ['mailboxemail', 'voicemailemail'], note: 'Empty: no mail.' },
  attachSound: { title: 'Attach the sound', also: ['attach', 'attachmessage'], note: 'yes or no.' },
  afterMail: { title: 'After the mail', also: ['aftermail'], note: 'keep or delete.' },
  place: { title: 'Place', also: ['room', 'rum', 'raum'], note: 'Where a place phone stands.' },
  sipPassword: {
    title: 'SIP password',
    also: ['sippassword', 'secret', 'password'],
    note: 'At least 12 characters; empty for one that is made. Never exported.',
    secret: true,
  },
  note: { title: 'Note', also: ['notes', 'comment', 'remark', 'anteckning', 'bemerkung'], note: 'Why it is so.' },
};

/** Which column of the sheet stands for what: positions counted from 0. */
export type Mapping = Record<string, number>;

const folded = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');

/** A column that a sheet can have: what it is called, and what else it goes by. */
export interface SheetTitle {
  key: string;
  title: string;
  also?: readonly string[];
  secret?: true;
}

/** The columns of a sheet of people and extensions. */
export const PEOPLE_TITLES: readonly SheetTitle[] = COLUMN_KEYS.map((key) => ({ key, ...COLUMNS[key] }));

/** Matches the names of a sheet's columns; the first that fits is taken, each column once. */
export function matchColumns(header: readonly string[], titles: readonly SheetTitle[] = PEOPLE_TITLES): Mapping {
  const out: Mapping = {};
  const names = header.map(folded);
  const taken = new Set<number>();
  const exact = ({ title }: SheetTitle) => names.indexOf(folded(title));
  const other = ({ key, also }: SheetTitle) =>
    names.findIndex((n, i) => !taken.has(i) && (n === folded(key) || also?.includes(n)));
  for (const find of [exact, other])
    for (const column of titles) {
      const { key } = column;
      if (out[key] !== undefined) continue;
      const at = find(column);
      if (at < 0 || taken.has(at)) continue;
      out[key] = at;
      taken.add(at);
    }
  return out;
}
