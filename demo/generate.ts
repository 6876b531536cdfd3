import type { z } from 'zod';
import { PLAN_FORMAT, PLAN_VERSION, type planSchema } from '@/core/plan';
import { randomFrom, type Random } from '@/core/random';

/* Made-up companies of any size, for benches and trials: ferries with ever more harbours. Seeded; every number is fiction. */

type Draft = z.input<typeof planSchema>;

/** What a generated company has. The defaults are the reference plan of the benches. */
export interface Size {
  seed: number;
  extensions: number;
  sites: number;
  rungs: number;
  numbers: number;
  maps: number;
  hours: number;
  attendants: number;
  queues: number;
}

export const REFERENCE: Size = {
  seed: 1,
  extensions: 20_000,
  sites: 40,
  rungs: 30,
  numbers: 2_000,
  maps: 2_000,
  hours: 300,
  attendants: 500,
  queues: 500,
};

const FIRST = [
  'Ada',
  'Bram',
  'Chloé',
  'Dagny',
  'Emre',
  'Farida',
  'Göran',
  'Hiro',
  'Ines',
  'Jörg',
  'Kofi',
  'Linnéa',
  'Mila',
  'Nuno',
  'Olu',
  'Pia',
];
const LAST = [
  'Ahlgren',
  'Berg',
  'Castro',
  'Dunn',
  'Eze',
  'Falk',
  'Grün',
  'Holm',
  'Ito',
  'Juhl',
  'Kaya',
  'Lind',
  'Moss',
  'Nkosi',
  'Okafor',
  'Petrel',
];
const HARBOURS = ['Quay', 'Pier', 'Kaj', 'Dock', 'Wharf', 'Strand', 'Haven', 'Slip'];

const pick = <T>(random: Random, list: readonly T[]): T => list[random.whole(list.length)]!;

/** A plan document of a size; the same size and seed give the same document. */
export function generate(wanted: Partial<Size> = {}): Draft {
  const size = { ...REFERENCE, ...wanted };
  const random = randomFrom(size.seed);
  const width = String(size.extensions * 2).length;
  const first = 2 * 10 ** (width - 1);
  const perSite = Math.ceil(size.extensions / size.sites);
  const sites = Array.from({ length: size.sites }, (_, i) => `site-${i}`);
  const numbers = Array.from(
    { length: size.numbers },
    (_, i) => `+44${i < 1000 ? 1632960000 + i : 7700900000 + (i - 1000)}`,
  ).slice(0, 2000);
  const siteOf = (i: number) => sites[Math.floor(i / perSite)]!;
  return {
    format: PLAN_FORMAT,
    version: PLAN_VERSION,
    organisation: { name: `Lanternfold ${size.extensions}` },
    classes: [
      {
        id: 'staff',
        name: 'Staff',
        rights: {
          internal: { allow: true },
          service: { allow: true },
          local: { allow: true },
          national: { allow: true, forward: true },
          mobile: { allow: true, forward: true },
          freephone: { allow: true },
          international: { allow: true },
          private: { allow: true },
        },
      },
    ],
    teams: Array.from({ length: 50 }, (_, i) => ({ id: `team-${i}`, name: `Team ${i}` })),
    sites: sites.map((id, i) => ({
      id,
      name: `${pick(random, HARBOURS)} ${i}`,
      country: 'GB',
      zone: 'Europe/London',
      area: '1632',
      outsidePrefix: '9',
      ladder: `ladder-${i}`,
      emergencyTrunks: [`trunk-${i}`],
      mainNumber: size.numbers > 0 ? `n-${i % size.numbers}` : null,
      ranges: [{ from: String(first + i * perSite), to: String(first + (i + 1) * perSite - 1) }],
    })),
    trunks: sites.map((site, i) => ({
      id: `trunk-${i}`,
      name: `Trunk ${i}`,
      kind: 'sip-peer' as const,
      site,
      channels: 30,
      deliveredForm: 'plus' as const,
    })),
    ladders: sites.map((_, i) => ({ id: `ladder-${i}`, name: `Ladder ${i}` })),
    rungs: sites.flatMap((_, i) => ladder(size, i)),
    people: Array.from({ length: size.extensions }, (_, i) => ({
      id: `p-${i}`,
      name: `${pick(random, FIRST)} ${pick(random, LAST)}`,
      site: siteOf(i),
      teams: i % 3 === 0 ? [`team-${i % 50}`] : [],
    })),
    mailboxes: Array.from({ length: Math.ceil(size.extensions / 2) }, (_, i) => ({
      id: `m-${i}`,
      name: `Mailbox ${i}`,
      site: siteOf(i * 2),
      owners: [`p-${i * 2}`],
    })),
    extensions: Array.from({ length: size.extensions }, (_, i) => ({
      id: `e-${i}`,
      digits: String(first + i),
      name: `Phone ${i}`,
      person: `p-${i}`,
      site: siteOf(i),
      class: 'staff',
      mailbox: i % 2 === 0 ? `m-${i / 2}` : null,
    })),
    numbers: numbers.map((e164, i) => ({
      id: `n-${i}`,
      e164,
      site: sites[i % sites.length]!,
      trunk: `trunk-${i % sites.length}`,
      belongsTo: i % 4 === 0 ? `a-${i % size.attendants}` : `e-${(i * 7) % size.extensions}`,
    })),
    numberAdditions: [
      { id: 'fiction', from: '+441632960000', to: '+441632960999', country: 'GB', kind: 'national' },
      { id: 'fiction-mobile', from: '+447700900000', to: '+447700900999', country: 'GB', kind: 'mobile' },
    ],
    holidayCalendars: [
      {
        id: 'days',
        name: 'Public holidays',
        dates: [
          { date: '2026-12-25', name: 'Christmas Day', yearly: true },
          { date: '2027-01-01', name: 'New Year', yearly: true },
          { date: '2027-05-03', name: 'May Day' },
        ],
      },
    ],
    hours: Array.from({ length: size.hours }, (_, i) => ({
      id: `h-${i}`,
      name: `Hours ${i}`,
      zone: pick(random, ['Europe/London', 'Europe/Stockholm', 'Europe/Berlin']),
      weekly: `mon-fri ${6 + (i % 4)}-${16 + (i % 5)}, sat ${8 + (i % 3)}-13`,
      holidays: ['days'],
      exceptions: [{ date: '2026-12-24', open: '8-12' }],
    })),
    prompts: [{ id: 'greeting', name: 'Greeting', seconds: 8 }],
    ringGroups: sites.map((site, i) => ({
      id: `g-${i}`,
      name: `Group ${i}`,
      site,
      members: Array.from({ length: 8 }, (_, k) => `e-${(i * perSite + k) % size.extensions}`),
    })),
    queues: Array.from({ length: size.queues }, (_, i) => ({
      id: `q-${i}`,
      name: `Queue ${i}`,
      site: sites[i % sites.length]!,
      permanentAgents: [`e-${(i * perSite) % size.extensions}`],
      agents: Array.from({ length: 20 }, (_, k) => `e-${(i * 13 + k + 1) % size.extensions}`).filter(
        (e) => e !== `e-${(i * perSite) % size.extensions}`,
      ),
      longestWaitSeconds: 300,
      waitedTooLong: `e-${(i * 29) % size.extensions}`,
    })),
    attendants: Array.from({ length: size.attendants }, (_, i) => ({
      id: `a-${i}`,
      name: `Attendant ${i}`,
      site: sites[i % sites.length]!,
      hours: size.hours > 0 ? `h-${i % size.hours}` : null,
      greetingOpen: 'greeting',
    })),
    attendantKeys: Array.from({ length: size.attendants }, (_, i) => i).flatMap((i) => [
      ...['1', '2', '3'].map((key, k) => ({
        id: `k-${i}-${key}`,
        attendant: `a-${i}`,
        key: key as '1',
        leadsTo: k === 0 ? `g-${i % sites.length}` : `e-${(i * 31 + k) % size.extensions}`,
      })),
      {
        id: `k-${i}-none`,
        attendant: `a-${i}`,
        mode: 'closed' as const,
        key: 'no key' as const,
        leadsTo: `e-${(i * 17) % size.extensions}`,
      },
    ]),
    inboundRoutes: Array.from({ length: Math.max(0, size.maps - size.sites * size.rungs) }, (_, i) => ({
      id: `r-${i}`,
      position: i,
      name: `Route ${i}`,
      calledMap: `+44161${String(4_960_000 + i).slice(0, 7)}`,
      leadsTo: `g-${i % sites.length}`,
    })),
  };
}

/** Rules of one site: what differs from harbour to harbour, then what all have. */
function ladder(size: Size, site: number): NonNullable<Draft['rungs']> {
  const usual: [string, string, number, 'national' | 'international'][] = [
    ['National', '90[1-8]x{8,9}', 1, 'national'],
    ['Mobile', '907x{9}', 1, 'national'],
    ['Abroad', '900[1-9]x{6,13}', 3, 'international'],
  ];
  const own = Array.from({ length: Math.max(0, size.rungs - usual.length) }, (_, i): (typeof usual)[number] => [
    `Area ${i}`,
    `9${String(100 + i)}${site % 10}[${i % 5}-${5 + (i % 5)}]x{${3 + (i % 3)}}`,
    1,
    'national',
  ]);
  return [...own, ...usual].map(([name, map, strip, reading], i) => ({
    id: `l-${site}-${i}`,
    ladder: `ladder-${site}`,
    position: i,
    name,
    map,
    strip,
    reading,
    trunks: [`trunk-${site}`, `trunk-${(site + 1) % size.sites}`],
  }));
}
