import type { z } from 'zod';
import type { planSchema } from '@/core/plan';

type Draft = z.input<typeof planSchema>;
type Input<K extends keyof Draft> = NonNullable<Draft[K]> extends (infer T)[] ? T : never;

/* The teams of the demo company, its opening hours and what presence states do. */

/** Team id, name, and the extension digits of its people, both ends included. */
const MEMBERS: [string, string, [number, number][]][] = [
  [
    'bookings',
    'Bookings',
    [
      [2105, 2118],
      [3001, 3004],
    ],
  ],
  ['customs', 'Customs', [[2120, 2123]]],
  [
    'crewing',
    'Crewing',
    [
      [2124, 2127],
      [5001, 5002],
      [5011, 5012],
    ],
  ],
  [
    'engineering',
    'Engineering',
    [
      [2128, 2134],
      [3005, 3009],
      [5003, 5004],
      [5013, 5014],
    ],
  ],
  [
    'terminal-desks',
    'Terminal desks',
    [
      [2135, 2149],
      [3010, 3028],
    ],
  ],
  ['freight-desk', 'Freight desk', [[4001, 4012]]],
];

export const TEAMS: Input<'teams'>[] = [
  ...MEMBERS.map(([id, name]) => ({ id: `team-${id}`, name })),
  { id: 'team-management', name: 'Management', note: 'Everybody with the class Management.' },
];

/** Teams of the person with these extension digits. */
export function teamsOf(digits: number): string[] {
  const own = MEMBERS.filter(([, , spans]) => spans.some(([from, to]) => digits >= from && digits <= to));
  return [...own.map(([id]) => `team-${id}`), ...(digits % 14 === 4 ? ['team-management'] : [])];
}

const yearly = (month: number, day: number, name: string) => ({
  date: `2026-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`,
  name,
  yearly: true,
});
const once = (date: string, name: string) => ({ date, name });

export const HOLIDAYS: Input<'holidayCalendars'>[] = [
  {
    id: 'holidays-gb',
    name: 'Bank holidays, England',
    country: 'GB',
    region: 'ENG',
    dates: [
      yearly(1, 1, 'New Year’s Day'),
      yearly(12, 25, 'Christmas Day'),
      yearly(12, 26, 'Boxing Day'),
      once('2026-12-28', 'Boxing Day (substitute)'),
      once('2027-03-26', 'Good Friday'),
      once('2027-03-29', 'Easter Monday'),
    ],
  },
  {
    id: 'holidays-se',
    name: 'Public holidays, Sweden',
    country: 'SE',
    dates: [
      yearly(1, 1, 'Nyårsdagen'),
      yearly(1, 6, 'Trettondedag jul'),
      yearly(6, 6, 'Nationaldagen'),
      yearly(12, 24, 'Julafton'),
      yearly(12, 25, 'Juldagen'),
      yearly(12, 26, 'Annandag jul'),
    ],
  },
  {
    id: 'holidays-de',
    name: 'Feiertage, Hamburg',
    country: 'DE',
    region: 'HH',
    dates: [
      yearly(1, 1, 'Neujahr'),
      yearly(5, 1, 'Maifeiertag'),
      yearly(10, 3, 'Tag der Deutschen Einheit'),
      yearly(10, 31, 'Reformationstag'),
      yearly(12, 25, '1. Weihnachtstag'),
      yearly(12, 26, '2. Weihnachtstag'),
      once('2027-03-26', 'Karfreitag'),
      once('2027-03-29', 'Ostermontag'),
    ],
  },
];

export const HOURS: Input<'hours'>[] = [
  {
    id: 'bookings-hours',
    name: 'Bookings, winter',
    zone: 'Europe/London',
    weekly: 'mon-fri 7-19, sat 8-13, sun 10-12, sun 13-16',
    holidays: ['holidays-gb'],
    note: 'Sundays have a hole at noon: nobody has said whether it is meant.',
  },
  {
    id: 'vastra-hours',
    name: 'Västra Kajen',
    zone: 'Europe/Stockholm',
    weekly: 'mon-fri 8-17, sat 9-14',
    holidays: ['holidays-se'],
    exceptions: [{ date: '2026-12-23', open: '8-12', name: 'Day before Christmas Eve' }],
  },
  {
    id: 'bookings-summer',
    name: 'Bookings, summer',
    zone: 'Europe/London',
    weekly: 'mon-sun 6-22',
    holidays: [],
    note: 'From May to September; routes ask it then.',
  },
  { id: 'head-office', name: 'Head office', zone: 'Europe/London', weekly: 'mon-fri 8-18', holidays: ['holidays-gb'] },
  {
    id: 'freight-hours',
    name: 'Freight desk, Hamburg',
    zone: 'Europe/Berlin',
    weekly: 'mon-fri 7-18, sat 8-12',
    holidays: ['holidays-de'],
  },
  { id: 'crew-day', name: 'Crew duty, by day', zone: 'Europe/London', weekly: 'mon-sun 6-21' },
];

export const ROUTE_RULES: Input<'routeRules'>[] = [
  { id: 'free-closed', route: 'in-free', position: 10, hours: 'bookings-hours', when: 'closed', leadsTo: 'm-2105' },
  { id: 'free-holiday', route: 'in-free', position: 5, hours: 'bookings-hours', when: 'holiday', leadsTo: 'm-2000' },
  { id: 'vastra-closed', route: 'in-vastra', position: 10, hours: 'vastra-hours', when: 'closed', leadsTo: 'm-3000' },
  { id: 'vastra-holiday', route: 'in-vastra', position: 5, hours: 'vastra-hours', when: 'holiday', leadsTo: 'e-2000' },
];

export const PRESENCE: Input<'presenceRules'>[] = [
  { id: 'presence-meeting', name: 'In a meeting', activity: 'meeting', internal: 'ring', outside: 'mailbox' },
  { id: 'presence-away', name: 'Away', activity: 'away', internal: 'mailbox', outside: 'mailbox' },
  {
    id: 'presence-vacation',
    name: 'On holiday',
    activity: 'vacation',
    internal: 'mailbox',
    outside: 'forward',
    outsideTo: 'm-2000',
  },
];
