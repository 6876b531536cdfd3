import type { z } from 'zod';
import type { planSchema } from '@/core/plan';
import { PLACES } from './places';
import { PROMISES } from './promises';
import { inventedName, slugOf } from './names';
import { HOLIDAYS, HOURS, PRESENCE, ROUTE_RULES, TEAMS, teamsOf } from './people-and-times';

type Draft = z.input<typeof planSchema>;
type Input<K extends keyof Draft> = NonNullable<Draft[K]> extends (infer T)[] ? T : never;

interface Town {
  site: string;
  first: number;
  /** extension digits of the people here */
  people: [number, number];
  places: [number, string][];
  numberOf: (digits: number) => string | null;
  staff: string;
}

const TOWNS: Town[] = [
  {
    site: 'north-quay',
    first: 0,
    people: [2101, 2149],
    places: [
      [2160, 'Lobby'],
      [2161, 'Berth 1'],
      [2162, 'Berth 2'],
      [2163, 'Lift A'],
      [2164, 'Lift B'],
      [2165, 'Gate 3'],
      [2166, 'Canteen'],
      [2167, 'Meeting room Skerry'],
      [2168, 'Meeting room Holm'],
      [2169, 'Workshop'],
      [2170, 'Control room'],
    ],
    numberOf: (d) => `+44163296${String(d - 2000).padStart(4, '0')}`,
    staff: 'staff',
  },
  {
    site: 'vastra-kajen',
    first: 60,
    people: [3001, 3028],
    places: [
      [3030, 'Lobby'],
      [3031, 'Lift'],
      [3032, 'Car ramp'],
      [3033, 'Staff room'],
    ],
    numberOf: (d) => `+4631390${String(600 + d - 3000).padStart(4, '0')}`,
    staff: 'staff',
  },
  {
    site: 'freight-hamburg',
    first: 100,
    people: [4001, 4018],
    places: [
      [4019, 'Lift'],
      [4020, 'Yard office'],
      [4021, 'Weighbridge'],
    ],
    numberOf: (d) => `+494066969${200 + d - 4000}`,
    staff: 'freight',
  },
  {
    site: 'tidewren',
    first: 130,
    people: [5001, 5004],
    places: [
      [5005, 'Bridge'],
      [5006, 'Car deck'],
      [5007, 'Purser'],
    ],
    numberOf: () => null,
    staff: 'crew',
  },
  {
    site: 'larkspur',
    first: 140,
    people: [5011, 5014],
    places: [
      [5015, 'Bridge'],
      [5016, 'Car deck'],
      [5017, 'Purser'],
    ],
    numberOf: () => null,
    staff: 'crew',
  },
];

const everything = { allow: true, pin: false, forward: false };
const inside = { internal: everything };
const plain = {
  ...inside,
  service: everything,
  local: everything,
  national: everything,
  mobile: { ...everything, forward: true },
  freephone: everything,
  'shared-cost': everything,
  international: everything,
  private: everything,
};

const classes: Input<'classes'>[] = [
  { id: 'staff', name: 'Staff', rights: plain },
  {
    id: 'management',
    name: 'Management',
    rights: { ...plain, premium: { allow: true, pin: true, forward: false }, satellite: everything },
  },
  { id: 'bookings', name: 'Bookings', rights: { ...plain, mobile: everything } },
  { id: 'freight', name: 'Freight', rights: { ...plain, satellite: everything } },
  { id: 'crew', name: 'Crew', rights: { ...plain, international: { allow: true, pin: true, forward: false } } },
  {
    id: 'quay-phone',
    name: 'Quay phone',
    rights: inside,
    note: 'Phones that anybody can pick up: emergency and internal only.',
  },
  { id: 'lobby', name: 'Lobby', rights: inside },
  { id: 'fax', name: 'Fax', rights: { ...inside, local: everything, national: everything, international: everything } },
];

const sites: Input<'sites'>[] = [
  {
    id: 'north-quay',
    name: 'North Quay',
    country: 'GB',
    zone: 'Europe/London',
    language: 'en',
    address: '1 Quay Road, North Quay',
    area: '1632',
    outsidePrefix: '9',
    ranges: [{ from: '2000', to: '2199' }],
    mainNumber: 'n-441632960100',
    emergencyTrunks: ['kestrel'],
    emergencyNotify: ['p-2101', 'p-2114'],
    ladder: 'out-north-quay',
    blockedCallers: '+44700900999',
    note: 'Head office and terminal.',
  },
  {
    id: 'vastra-kajen',
    name: 'Västra Kajen',
    country: 'SE',
    zone: 'Europe/Stockholm',
    language: 'sv',
    address: 'Västra Kajen 4, Hamnstaden',
    area: '31',
    outsidePrefix: '0',
    ranges: [{ from: '3000', to: '3099' }],
    mainNumber: 'n-46313900600',
    emergencyTrunks: ['sundvik'],
    emergencyNotify: ['p-3001'],
    ladder: 'out-vastra-kajen',
  },
  {
    id: 'freight-hamburg',
    name: 'Freight Hamburg',
    country: 'DE',
    zone: 'Europe/Berlin',
    language: 'de',
    address: 'Kaispeicher 9, Hamburg',
    area: '40',
    outsidePrefix: '0',
    ranges: [{ from: '4000', to: '4049' }],
    mainNumber: 'n-494066969200',
    emergencyTrunks: ['elbkontor'],
    emergencyNotify: ['p-4001'],
    ladder: 'out-freight-hamburg',
  },
  {
    id: 'tidewren',
    name: 'Tidewren',
    country: 'GB',
    zone: 'Europe/London',
    language: 'en',
    address: 'MV Tidewren',
    outsidePrefix: '9',
    ranges: [{ from: '5001', to: '5009' }],
    mainNumber: 'n-447700900100',
    emergencyTrunks: ['tidewren-gateway'],
    ladder: 'out-tidewren',
  },
  {
    id: 'larkspur',
    name: 'Larkspur',
    country: 'GB',
    zone: 'Europe/London',
    language: 'en',
    address: 'MV Larkspur',
    outsidePrefix: '9',
    ranges: [{ from: '5011', to: '5019' }],
    mainNumber: 'n-447700900101',
    emergencyTrunks: ['larkspur-gateway'],
    ladder: 'out-larkspur',
  },
];

const trunks: Input<'trunks'>[] = [
  {
    id: 'kestrel',
    name: 'Kestrel Voice',
    kind: 'sip-registration',
    site: 'north-quay',
    host: 'sip.kestrel.example',
    account: 'lanternfold-nq',
    channels: 20,
    keptForEmergency: 1,
    keptForIncoming: 4,
    codecs: ['G.711A', 'G.722'],
    deliveredLength: 11,
    deliveredForm: 'national',
    writes: 'plus',
    ownNumber: 'n-441632960100',
  },
  {
    id: 'sundvik',
    name: 'Sundvik Nät',
    kind: 'sip-peer',
    site: 'vastra-kajen',
    host: '198.51.100.20',
    channels: 10,
    keptForEmergency: 1,
    codecs: ['G.711A'],
    deliveredForm: 'plus',
    writes: 'plus',
    ownNumber: 'n-46313900600',
  },
  {
    id: 'elbkontor',
    name: 'Elbkontor',
    kind: 'isdn',
    site: 'freight-hamburg',
    channels: 30,
    keptForEmergency: 1,
    deliveredLength: 3,
    deliveredForm: 'significant',
    deliveredHead: '4066969',
    writes: 'national',
    isdnNumberType: 'unknown',
    ownNumber: 'n-494066969200',
  },
  {
    id: 'tidewren-gateway',
    name: 'Tidewren gateway',
    kind: 'sip-peer',
    site: 'tidewren',
    host: '198.51.100.61',
    channels: 2,
    keptForEmergency: 1,
    deliveredForm: 'plus',
    writes: 'plus',
    ownNumber: 'n-447700900100',
  },
  {
    id: 'larkspur-gateway',
    name: 'Larkspur gateway',
    kind: 'sip-peer',
    site: 'larkspur',
    host: '198.51.100.62',
    channels: 2,
    keptForEmergency: 1,
    deliveredForm: 'plus',
    writes: 'plus',
    ownNumber: 'n-447700900101',
  },
  {
    id: 'harbour-link',
    name: 'Harbour link',
    kind: 'sip-peer',
    site: 'north-quay',
    host: '198.51.100.7',
    channels: 8,
    deliveredLength: 4,
    deliveredForm: 'private',
    writes: 'private',
    note: 'The harbour authority’s own phone system; 7000 to 7099 are theirs.',
  },
];

type RungInput = Omit<Input<'rungs'>, 'id' | 'ladder' | 'position'>;
const harbour: RungInput = {
  name: 'Harbour authority',
  map: '70x{2}',
  reading: 'private',
  show: 'extension',
  trunks: ['harbour-link'],
};

const LADDERS: Record<string, { name: string; rungs: RungInput[] }> = {
  'out-north-quay': {
    name: 'Outbound from North Quay',
    rungs: [
      harbour,
      { name: 'Services', map: '9(101|105|111|119|123|116xxx|118xxx)', strip: 1, trunks: ['kestrel'] },
      { name: 'Freephone', map: '9080[08]x{6,7}', strip: 1, trunks: ['kestrel'] },
      {
        name: 'Premium',
        map: '909x{8,9}',
        strip: 1,
        trunks: ['kestrel'],
        note: 'The classes refuse it for all but Management.',
      },
      { name: 'National and mobile', map: '90[1-8]x{8,9}', strip: 1, trunks: ['kestrel', 'sundvik'] },
      { name: 'Sweden direct', map: '90046x{7,9}', strip: 3, reading: 'international', trunks: ['sundvik', 'kestrel'] },
      {
        name: 'Germany direct',
        map: '90049x{6,11}',
        strip: 3,
        reading: 'international',
        trunks: ['elbkontor', 'kestrel'],
      },
      {
        name: 'Sweden mobile',
        map: '9004670x{7}',
        strip: 3,
        reading: 'international',
        trunks: ['sundvik'],
        note: 'Covered by Sweden direct above it.',
      },
      { name: 'International', map: '900[1-9]x{6,13}', strip: 3, reading: 'international', trunks: ['kestrel'] },
    ],
  },
  'out-vastra-kajen': {
    name: 'Outbound from Västra Kajen',
    rungs: [
      harbour,
      { name: 'Services', map: '0(1177|11313|11414|116xxx|118xxx)', strip: 1, trunks: ['sundvik'] },
      { name: 'Premium', map: '009(00|39|44)x{5,7}', strip: 1, trunks: ['sundvik'] },
      {
        name: 'United Kingdom direct',
        map: '00044x{9,10}',
        strip: 3,
        reading: 'international',
        trunks: ['kestrel', 'sundvik'],
      },
      {
        name: 'International',
        map: '000[1-9]x{6,13}',
        strip: 3,
        reading: 'international',
        trunks: ['sundvik', 'kestrel'],
      },
      { name: 'National and mobile', map: '00[1-9]x{6,9}', strip: 1, trunks: ['sundvik', 'kestrel'] },
      { name: 'In the area', map: '0[2-9]x{4,6}', strip: 1, reading: 'subscriber', trunks: ['sundvik'] },
    ],
  },
  'out-freight-hamburg': {
    name: 'Outbound from Hamburg',
    rungs: [
      harbour,
      { name: 'Services', map: '0(115|116xxx|118xx)', strip: 1, trunks: ['elbkontor'] },
      { name: 'Premium', map: '00900x{6,8}', strip: 1, trunks: ['elbkontor'] },
      {
        name: 'International',
        map: '000[1-9]x{6,13}',
        strip: 3,
        reading: 'international',
        trunks: ['elbkontor', 'kestrel'],
      },
      { name: 'National and mobile', map: '00[1-9]x{5,11}', strip: 1, trunks: ['elbkontor', 'kestrel'] },
      { name: 'In the area', map: '0[2-9]x{3,8}', strip: 1, reading: 'subscriber', trunks: ['elbkontor'] },
    ],
  },
  'out-tidewren': { name: 'Outbound from Tidewren', rungs: shipRungs('tidewren-gateway') },
  'out-larkspur': { name: 'Outbound from Larkspur', rungs: shipRungs('larkspur-gateway') },
};

function shipRungs(gateway: string): RungInput[] {
  return [
    { name: 'Freephone', map: '9080[08]x{6,7}', strip: 1, trunks: [gateway] },
    { name: 'National and mobile', map: '90[1-8]x{8,9}', strip: 1, trunks: [gateway] },
    { name: 'International', map: '900[1-9]x{6,13}', strip: 3, reading: 'international', trunks: [gateway] },
  ];
}

/** Lanternfold Ferries: five sites, about 130 extensions, as a plan document. */
export function lanternfold(): Draft {
  const plan = {
    format: 'polydrome-plan' as const,
    version: 5 as const,
    organisation: { name: 'Lanternfold Ferries' },
    classes,
    sites,
    trunks,
    ladders: Object.entries(LADDERS).map(([id, l]) => ({ id, name: l.name })),
    rungs: Object.entries(LADDERS).flatMap(([id, l]) =>
      l.rungs.map((r, i) => ({ id: `${id}-${i + 1}`, ladder: id, position: (i + 1) * 10, ...r })),
    ),
    people: [] as Input<'people'>[],
    mailboxes: [
      {
        id: 'm-lost-property',
        name: 'Lost property',
        site: 'north-quay',
        owners: [],
        email: 'lost@lanternfold.example',
        attachSound: true,
        afterMail: 'delete',
      },
      {
        id: 'm-bookings',
        name: 'Bookings messages',
        site: 'north-quay',
        owners: ['p-2106', 'p-2107', 'p-2104'],
        email: 'bookings@lanternfold.example',
        attachSound: true,
      },
    ] as Input<'mailboxes'>[],
    extensions: [] as Input<'extensions'>[],
    numbers: numbers(),
    inboundRoutes: inboundRoutes(),
    teams: TEAMS,
    holidayCalendars: HOLIDAYS,
    hours: HOURS,
    routeRules: ROUTE_RULES,
    presenceRules: PRESENCE,
    ...PLACES,
    promises: PROMISES,
    numberAdditions: [
      {
        id: 'fiction-gb-area',
        from: '+441632960000',
        to: '+441632960999',
        country: 'GB',
        kind: 'national' as const,
        note: 'Kept for fiction by the regulator.',
      },
      {
        id: 'fiction-gb-mobile',
        from: '+447700900000',
        to: '+447700900999',
        country: 'GB',
        kind: 'mobile' as const,
        note: 'Kept for fiction by the regulator.',
      },
      {
        id: 'fiction-gb-free',
        from: '+448081570000',
        to: '+448081570999',
        country: 'GB',
        kind: 'freephone' as const,
        note: 'Kept for fiction by the regulator.',
      },
    ],
  };
  for (const town of TOWNS) addTown(plan, town);
  addExtras(plan);
  plan.extensions.find((e) => e.id === 'e-2170')!.reachPlan = 'reach-engineer';
  const owners = new Map(plan.extensions.filter((e) => e.person).map((e) => [e.digits, e.id]));
  for (const town of TOWNS) {
    for (const n of plan.numbers) {
      for (let d = town.people[0]; d <= town.people[1]; d++)
        if (town.numberOf(d) === n.e164 && owners.has(String(d)) && d % 6 !== 0) n.belongsTo = owners.get(String(d))!;
    }
  }
  return plan;
}

type Growing = Required<Pick<Draft, 'people' | 'mailboxes' | 'extensions' | 'numbers'>>;

function addTown(plan: Growing, town: Town): void {
  for (let d = town.people[0]; d <= town.people[1]; d++) {
    const name = inventedName(town.first + d - town.people[0]);
    const email = `${slugOf(name)}@lanternfold.example`;
    plan.people.push({ id: `p-${d}`, name, email, site: town.site, teams: teamsOf(d) });
    plan.mailboxes.push({ id: `m-${d}`, name, site: town.site, owners: [`p-${d}`], email });
    const cos = d % 14 === 4 ? 'management' : d > 2104 && d < 2119 ? 'bookings' : town.staff;
    plan.extensions.push({
      id: `e-${d}`,
      digits: String(d),
      name,
      kind: 'person',
      site: town.site,
      person: `p-${d}`,
      class: cos,
      mailbox: `m-${d}`,
      // One person has a page for callers.
      ...(d === 2102 ? { callPage: 'ilse-brandvik' } : {}),
    });
  }
  for (const [d, place] of town.places) {
    const open = place === 'Lobby' ? 'lobby' : 'quay-phone';
    plan.extensions.push({
      id: `e-${d}`,
      digits: String(d),
      name: place,
      kind: 'place',
      site: town.site,
      class: open,
      place,
      ringSeconds: 40,
    });
  }
}

function addExtras(plan: Growing): void {
  const reception = (digits: string, name: string, site: string, cos: string) => {
    plan.mailboxes.push({
      id: `m-${digits}`,
      name,
      site,
      owners: [`p-${Number(digits) + (digits === '2000' ? 101 : 1)}`],
      email: 'desk@lanternfold.example',
    });
    plan.extensions.push({
      id: `e-${digits}`,
      digits,
      name,
      kind: 'place',
      site,
      class: cos,
      mailbox: `m-${digits}`,
      place: 'Front desk',
    });
  };
  reception('2000', 'North Quay reception', 'north-quay', 'staff');
  reception('3000', 'Västra Kajen reception', 'vastra-kajen', 'staff');
  reception('4000', 'Freight desk', 'freight-hamburg', 'freight');
  plan.extensions.push({
    id: 'e-2171',
    digits: '2171',
    name: 'Customs fax',
    kind: 'fax',
    site: 'north-quay',
    class: 'fax',
    ringSeconds: 60,
  });
  plan.extensions.push({
    id: 'e-2172',
    digits: '2172',
    name: 'Lost property',
    kind: 'virtual',
    site: 'north-quay',
    class: 'quay-phone',
    mailbox: 'm-lost-property',
  });
  // A crew phone that shows a number its trunk does not own, for the checks to find.
  plan.extensions.find((e) => e.id === 'e-5002')!.outgoingNumber = 'n-441632960100';
}

function numbers(): Input<'numbers'>[] {
  const range = (head: string, from: number, count: number, width: number, site: string, trunk: string) =>
    Array.from({ length: count }, (_, i) => {
      const e164 = `${head}${String(from + i).padStart(width, '0')}`;
      return {
        id: `n-${e164.slice(1)}`,
        e164,
        state: 'active' as const,
        site,
        trunk,
        belongsTo: null as string | null,
      };
    });
  const all: Input<'numbers'>[] = [
    ...range('+44163296', 100, 100, 4, 'north-quay', 'kestrel'),
    ...range('+44808157', 100, 10, 4, 'north-quay', 'kestrel'),
    ...range('+4631390', 600, 50, 4, 'vastra-kajen', 'sundvik'),
    ...range('+494066969', 200, 50, 3, 'freight-hamburg', 'elbkontor'),
    ...range('+447700900', 100, 1, 3, 'tidewren', 'tidewren-gateway'),
    ...range('+447700900', 101, 1, 3, 'larkspur', 'larkspur-gateway'),
  ];
  const at = (e164: string) => all.find((n) => n.e164 === e164)!;
  for (let i = 190; i < 200; i++) at(`+44163296${String(i).padStart(4, '0')}`).state = 'reserved';
  at('+46313900649').state = 'porting-in';
  at('+494066969200').belongsTo = 'e-4000';
  at('+441632960183').belongsTo = 'main-attendant';
  at('+46313900645').belongsTo = 'vastra-attendant';
  at('+494066969240').belongsTo = 'hamburg-attendant';
  at('+441632960171').belongsTo = 'e-2171';
  at('+441632960172').belongsTo = 'm-lost-property';
  at('+447700900100').belongsTo = 'e-5005';
  at('+447700900101').belongsTo = 'e-5015';
  return all;
}

function inboundRoutes(): Input<'inboundRoutes'>[] {
  return [
    { id: 'in-main', position: 10, name: 'Main number', numbers: ['n-441632960100'], leadsTo: 'main-attendant' },
    { id: 'in-vastra', position: 20, name: 'Västra Kajen main', numbers: ['n-46313900600'], leadsTo: 'e-3000' },
    {
      id: 'in-free',
      position: 30,
      name: 'Bookings freephone',
      calledMap: '+44808157010x',
      leadsTo: 'bookings-queue',
      note: 'All ten freephone numbers.',
    },
    {
      id: 'in-hamburg-four',
      position: 40,
      name: 'Hamburg yard',
      calledMap: '+4940669692301',
      leadsTo: 'e-4020',
      note: 'Entered with four digits where the trunk delivers three: never reached.',
    },
    {
      id: 'in-harbour',
      position: 50,
      name: 'From the harbour authority',
      calledMap: '2x{3}|3x{3}|4x{3}',
      trunk: 'harbour-link',
      dialledExtension: true,
    },
    { id: 'in-crew', position: 60, name: 'Crew duty line', numbers: ['n-441632960180'], leadsTo: 'crew-duty' },
    {
      id: 'in-manifests',
      position: 70,
      name: 'Customs manifests',
      numbers: ['n-441632960181'],
      leadsTo: 'customs-manifests',
    },
    { id: 'in-status', position: 80, name: 'Sailing status', numbers: ['n-441632960182'], leadsTo: 'sailing-status' },
  ];
}
