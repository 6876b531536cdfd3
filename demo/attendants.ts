import type { z } from 'zod';
import { secondsToSay, type planSchema } from '@/core/plan';

type Draft = z.input<typeof planSchema>;
type Input<K extends keyof Draft> = NonNullable<Draft[K]> extends (infer T)[] ? T : never;

/* What greets callers of the demo company: in English with a second level, in Swedish, and in German. */

const TEXTS: Input<'prompts'>[] = [
  {
    id: 'greeting-open',
    name: 'Main greeting, open',
    text: 'Welcome to Lanternfold Ferries. For bookings press 1, for freight press 2, for sailing status press 3, for lost property press 4. For staff by name press 9. To hear this again press star. Press 0 for the terminal desk.',
  },
  {
    id: 'greeting-closed',
    name: 'Main greeting, closed',
    text: 'Lanternfold Ferries. Our desks are closed. For sailing status press 3, for lost property press 4. Or stay on the line and leave a message.',
  },
  {
    id: 'greeting-storm',
    name: 'Main greeting, bad weather',
    text: 'Because of the storm our terminals are closed tonight. For sailing status press 3. Or stay on the line and leave a message.',
  },
  {
    id: 'bookings-wait',
    name: 'Bookings, please wait',
    text: 'You are in the queue for bookings. Somebody will be with you soon. Press zero to leave a message instead.',
  },
  {
    id: 'greeting-freight',
    name: 'Freight greeting',
    text: 'Freight. For Hamburg press 1, for customs press 2. To go back press star.',
  },
  {
    id: 'greeting-vastra',
    name: 'Västra Kajen, hälsning',
    language: 'sv',
    text: 'Välkommen till Lanternfold Färjor. För bokningar tryck 1, för terminalen tryck 2, för avgångar tryck 3.',
    versions: [
      {
        language: 'en',
        text: 'Welcome to Lanternfold Ferries at Västra Kajen. For bookings press 1, for the terminal press 2, for sailings press 3.',
      },
    ],
  },
  {
    id: 'greeting-vastra-closed',
    name: 'Västra Kajen, stängt',
    language: 'sv',
    text: 'Lanternfold Färjor. Vi har stängt nu. Lämna ett meddelande efter tonen.',
  },
  {
    id: 'greeting-hamburg',
    name: 'Hamburg, Begrüßung',
    language: 'de',
    text: 'Willkommen bei Lanternfold Fähren, Fracht Hamburg. Für Fracht drücken Sie die 1, für den Zoll drücken Sie die 2. Für Mitarbeiter nach Namen drücken Sie die 9.',
  },
  {
    id: 'greeting-hamburg-closed',
    name: 'Hamburg, geschlossen',
    language: 'de',
    text: 'Lanternfold Fähren, Fracht Hamburg. Wir haben jetzt geschlossen. Hinterlassen Sie eine Nachricht nach dem Ton.',
  },
];

/** About as long as they take to say; where they are spoken, as long as that takes. */
export const GREETINGS = TEXTS.map((p) => ({
  ...p,
  seconds: secondsToSay(p.text ?? ''),
  ...(p.versions ? { versions: p.versions.map((v) => ({ ...v, seconds: secondsToSay(v.text ?? '') })) } : {}),
}));

type Key = Input<'attendantKeys'>;

/** The keys of one attendant, by mode: a place, or what the key does. */
function keys(attendant: string, modes: Record<string, Record<string, string | Partial<Key>>>): Key[] {
  return Object.entries(modes).flatMap(([mode, set]) =>
    Object.entries(set).map(([key, does], i): Key => ({
      id: `${attendant}-${mode}-${i + 1}`,
      attendant,
      mode: mode as Key['mode'],
      key: key as Key['key'],
      ...(typeof does === 'string' ? { leadsTo: does } : does),
    })),
  );
}

const phones = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => `e-${from + i}`);

export const ATTENDANTS = {
  ringGroups: [
    {
      id: 'bookings-desk',
      name: 'Bookings desk',
      site: 'north-quay',
      digits: '6700',
      members: ['e-2111', 'e-2112', 'e-2113', 'e-2114'],
      ringSeconds: 25,
      noAnswer: 'm-2000',
    },
    {
      id: 'terminal-desk',
      name: 'Terminal desk',
      site: 'vastra-kajen',
      digits: '6710',
      members: phones(3006, 3009),
      order: 'by stages' as const,
      ringSeconds: 30,
      stageSeconds: 8,
      shownName: 'Terminal',
      noAnswer: 'm-3000',
      note: 'The desk rings first; a colleague joins every eight seconds.',
    },
  ],
  queues: [
    {
      id: 'bookings-queue',
      name: 'Bookings',
      site: 'north-quay',
      digits: '6720',
      permanentAgents: ['e-2106', 'e-2107'],
      agents: phones(2108, 2118),
      secondAgents: phones(3001, 3005),
      secondAfterSeconds: 90,
      strategy: 'longest idle' as const,
      ringSeconds: 15,
      wrapUpSeconds: 20,
      longestWaitSeconds: 420,
      waitedTooLong: 'm-bookings',
      mostWaiting: 12,
      full: 'bookings-desk',
      nobodySignedIn: 'm-bookings',
      intro: 'bookings-wait',
      announceEverySeconds: 60,
      callbackKey: '1' as const,
      callbackAfterSeconds: 120,
      exitKey: '0' as const,
      exitTo: 'm-bookings',
      managers: ['p-2104'],
      tellsAbandoned: true,
      tellsWaitSeconds: 300,
      tellsNobody: true,
      callPage: 'bookings',
      recorded: true,
      note: 'Freephone callers. Two agents are always there; the others sign in when ferries are full; Västra Kajen helps out after a minute and a half.',
    },
  ],
  attendants: [
    {
      id: 'main-attendant',
      name: 'Main attendant',
      site: 'north-quay',
      digits: '6600',
      hours: 'bookings-hours',
      greetingOpen: 'greeting-open',
      greetingClosed: 'greeting-closed',
      greetingNotice: 'greeting-storm',
      digitSeconds: 2,
      chooseSeconds: 8,
      directDialling: 'site' as const,
      shownName: 'Main line',
    },
    {
      id: 'freight-attendant',
      name: 'Freight, second level',
      site: 'north-quay',
      greetingOpen: 'greeting-freight',
      above: 'main-attendant',
      shownName: 'Freight',
    },
    {
      id: 'vastra-attendant',
      name: 'Västra Kajen attendant',
      site: 'vastra-kajen',
      digits: '6610',
      hours: 'vastra-hours',
      greetingOpen: 'greeting-vastra',
      greetingClosed: 'greeting-vastra-closed',
      language: 'sv',
    },
    {
      id: 'hamburg-attendant',
      name: 'Hamburg attendant',
      site: 'freight-hamburg',
      digits: '6620',
      hours: 'freight-hours',
      greetingOpen: 'greeting-hamburg',
      greetingClosed: 'greeting-hamburg-closed',
      language: 'de',
    },
  ],
  attendantKeys: [
    ...keys('main-attendant', {
      open: {
        1: 'bookings-desk',
        2: 'freight-attendant',
        3: 'sailing-status',
        4: 'm-lost-property',
        9: { does: 'ask name' },
        '*': { does: 'repeat' },
        0: { leadsTo: 'e-2000', silent: false },
        'no key': 'e-2000',
      },
      closed: { 3: 'sailing-status', 4: 'm-lost-property', 'no key': 'm-2000' },
      notice: { 3: 'sailing-status', 'no key': 'm-2000' },
    }),
    ...keys('freight-attendant', {
      open: { 1: 'e-4000', 2: 'e-2118', '*': { does: 'back' }, 'no key': 'e-4000' },
    }),
    ...keys('vastra-attendant', {
      open: { 1: 'bookings-desk', 2: 'e-3000', 3: 'sailing-status', 'no key': 'e-3000' },
      closed: { 'no key': 'm-3000' },
    }),
    ...keys('hamburg-attendant', {
      open: { 1: 'e-4000', 2: 'e-2118', 9: { does: 'ask name' }, 'no key': 'e-4000' },
      closed: { 'no key': 'm-4000' },
    }),
  ],
} satisfies Partial<Draft>;
