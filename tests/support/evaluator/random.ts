import { readPlan, type Plan } from '@/core/plan';
import { TRANSFER_KINDS, situationSchema, type Call, type Situation } from '@/core/routing';

/* Random plans of every kind of object, random situations and calls: small, so that what they name often meets. */

/** A repeatable source of chance (mulberry32). */
export class Chance {
  constructor(private seed: number) {}

  next(): number {
    this.seed = (this.seed + 0x6d2b79f5) | 0;
    let t = Math.imul(this.seed ^ (this.seed >>> 15), 1 | this.seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  }
  below = (n: number): number => Math.floor(this.next() * n);
  is = (share: number): boolean => this.next() < share;
  one = <T>(list: readonly T[]): T => list[this.below(list.length)]!;
  some<T>(list: readonly T[], share: number): T[] {
    return list.filter(() => this.is(share));
  }
  /** one of a list, or nothing */
  maybe<T>(list: readonly T[], share: number): T | null {
    return list.length > 0 && this.is(share) ? this.one(list) : null;
  }
  shuffled<T>(list: readonly T[]): T[] {
    return list
      .map((x) => [this.next(), x] as const)
      .sort((a, b) => a[0] - b[0])
      .map(([, x]) => x);
  }
}

type Doc = Record<string, unknown>;

const KINDS = [
  'internal',
  'service',
  'local',
  'national',
  'mobile',
  'freephone',
  'premium',
  'international',
  'private',
  'unknown',
];
const NAMES = [
  'Ann Ample',
  'Anna Amplet',
  'Bo Ünal',
  'İlker Işık',
  'Joán Müller',
  'John Muller',
  '森 由紀',
  'Straße Ng',
];
const MAPS = [
  '90[1-8]x{8,9}',
  '9[1-8]x{4,5}',
  '900[1-9]x{6,13}',
  '9x.',
  '90x{10}T',
  '9901632x{6}',
  '70x{2}',
  '9(101|118118|116111)',
  '2x{3}',
  '0x{6,10}',
  '2101|90x{9,10}',
  '[2-4]x{3,5}T',
];
const ZONES = { quay: 'Europe/London', pier: 'Europe/London', kaj: 'Europe/Stockholm' };
const SITES = ['quay', 'pier', 'kaj'] as const;
const WEEKS = ['mon-fri 9-17:30', 'mon-sun 0-24', 'fri 22-2, sat 10-14', 'thu-fri 18-6', ''];
const FORMS = ['plus', 'digits', 'national', 'significant', 'subscriber'];

/** Digits that lead outside by one rule or another. */
export const OUTSIDE = ['901632960150', '907700900123', '90046313900610', '9012345678', '7012', '2175', '0313900615'];

/** Digits that a trunk may bring: of what stands inside, of numbers outside that are none of ours, and of nothing. */
export function broughtIn(c: Chance, plan: Plan): string {
  if (c.is(0.3)) return c.one(['7', '99', '2101', '3104', '+447700900555', '07700900555', '555555']);
  if (c.is(0.3)) return c.one(OUTSIDE);
  const code = c.is(0.2) ? (c.one(plan.sites).siteCode ?? '') : '';
  const inside = [...plan.ringGroups, ...plan.queues, ...plan.attendants, ...plan.outsideNumbers];
  return code + c.one([...plan.extensions.map((e) => e.digits), ...inside.flatMap((o) => o.digits ?? [])]);
}

/** The moments at which calls are made: working time, night, before midnight, Christmas, a clock change. */
export const MOMENTS = [
  '2026-12-04T10:00:00Z',
  '2026-12-04T22:30:00Z',
  '2026-12-05T01:15:00Z',
  '2026-12-24T11:00:00Z',
  '2026-12-25T00:30:00Z',
  '2026-12-25T10:00:00Z',
  '2026-10-25T00:30:00Z',
  '2026-12-31T23:30:00Z',
].map((t) => Date.parse(t));

function rights(c: Chance): Doc {
  return Object.fromEntries(
    KINDS.map((k) => [k, { allow: c.is(0.85), pin: c.is(0.1), forward: c.is(0.6), transfer: c.is(0.6) }]),
  );
}

function document(c: Chance): Doc {
  const perSite = c.is(0.35);
  const d: Record<string, Doc[]> & { organisation?: Doc } = {} as never;
  const ids = (list: string) => (d[list] ?? []).map((o) => o.id as string);
  const taken = new Set<string>();
  const digits = (site: string): string | null => {
    for (let tries = 0; tries < 20; tries++) {
      const text = c.one(['2', '3', '21', '210', '310']) + String(c.below(c.one([10, 100])));
      const key = perSite ? `${site} ${text}` : text;
      if (!taken.has(key)) {
        taken.add(key);
        return text;
      }
    }
    return null;
  };
  d.classes = ['a', 'b', 'c'].map((id) => ({ id, name: id, rights: rights(c) }));
  d.teams = [
    { id: 'red', name: 'Red' },
    { id: 'blue', name: 'Blue' },
  ];
  d.holidayCalendars = [
    { id: 'days', name: 'Days', dates: [{ date: '2026-12-25', name: 'Christmas', yearly: c.is(0.5) }] },
  ];
  d.hours = ['h1', 'h2', 'h3'].map((id) => ({
    id,
    name: id,
    zone: c.one(Object.values(ZONES)),
    weekly: c.one(WEEKS),
    holidays: c.is(0.6) ? ['days'] : [],
    exceptions: c.is(0.5) ? [{ date: '2026-12-24', open: c.one(['', '9-12', '20-3']) }] : [],
  }));
  d.sites = SITES.map((id, i) => ({
    id,
    name: id,
    country: id === 'kaj' ? 'SE' : 'GB',
    zone: ZONES[id],
    area: id === 'kaj' ? '31' : c.maybe(['1632', '20'], 0.8),
    outsidePrefix: c.maybe(['9', '0'], 0.8),
    siteCode: perSite ? `8${i}` : null,
    linkKbitPerSecond: c.maybe([100, 200], 0.3),
    linkIp: c.one(['4', '6']),
  }));
  d.ladders = [
    { id: 'l1', name: 'L1' },
    { id: 'l2', name: 'L2' },
  ];
  d.people = NAMES.map((name, i) => ({
    id: `p${i}`,
    name,
    site: c.one(SITES),
    teams: c.some(['red', 'blue'], 0.4),
    ...(name.startsWith('森') && c.is(0.5) ? { spelling: 'Yuki Mori' } : {}),
  }));
  d.prompts = [
    { id: 'short', name: 'Short', seconds: 3, versions: [{ language: 'sv', seconds: 5 }] },
    { id: 'long', name: 'Long', seconds: 11, language: 'de', versions: [{ language: 'sv-FI', seconds: 7 }] },
    { id: 'silent', name: 'Silent', seconds: 0 },
    ...(c.is(0.3)
      ? [{ id: 'own', name: 'Own', seconds: 2.5, phrase: c.one(['wrong key', 'hand-over', 'ask name']) }]
      : []),
  ];
  const site = () => c.one(SITES);
  const place = (id: string, share = 0.8): Doc => {
    const s = site();
    return { id, name: id, site: s, digits: c.is(share) ? digits(s) : null };
  };
  d.mailboxes = ['m1', 'm2', 'm3'].map((id) => ({ id, name: id, site: site(), on: c.is(0.85) }));
  d.extensions = Array.from({ length: 9 }, (_, i) => {
    const s = site();
    return {
      id: `e${i}`,
      digits: digits(s) ?? `5${i}0`,
      name: `E${i}`,
      site: s,
      kind: c.one(['person', 'person', 'place', 'virtual']),
      person: c.maybe(ids('people'), 0.7),
      class: c.one(['a', 'b', 'c']),
      withholdNumber: c.is(0.15),
      ringSeconds: c.one([10, 20, 25]),
      mailbox: c.maybe(ids('mailboxes'), 0.6),
      lines: c.one([1, 2, 3]),
      callWaiting: c.is(0.7),
      rejectsWithheld: c.is(0.15),
    };
  });
  const exts = ids('extensions');
  d.trunks = ['t1', 't2', 't3', 't4'].map((id) => {
    const writes = c.one(FORMS);
    return {
      id,
      name: id,
      kind: c.one(['sip-peer', 'sip-registration', 'isdn']),
      site: site(),
      enabled: c.is(0.92),
      channels: c.one([2, 3, 4]),
      keptForIncoming: c.one([0, 0, 1]),
      keptForEmergency: c.one([0, 0, 1]),
      channelChoice: c.one(['lowest free', 'highest free', 'rotating up', 'rotating down']),
      codecs: c.one([['G.711A'], ['G.711A', 'G.729'], ['G.729'], ['G.722', 'G.711A']]),
      transcoding: c.is(0.2),
      deliveredLength: c.maybe([3, 6, 11], 0.3),
      deliveredForm: c.one([...FORMS, 'private']),
      writes,
      carrierPrefix: writes === 'plus' ? null : c.maybe(['1012'], 0.15),
      showsOriginalCaller: c.is(0.4),
      transit: c.is(0.4),
      answerSeconds: c.one([3, 5]),
    };
  });
  const trunks = ids('trunks');
  d.numbers = Array.from({ length: 8 }, (_, i) => ({
    id: `n${i}`,
    e164: i < 5 ? `+4416329601${i}0` : `+4631390061${i}`,
    site: site(),
    trunk: c.maybe(trunks, 0.9),
    state: c.one(['active', 'active', 'active', 'active', 'reserved', 'retired']),
    activeFrom: c.maybe(['2026-12-05', '2026-12-25'], 0.15),
  })) as Doc[];
  for (const t of d.trunks!) Object.assign(t, { ownNumber: c.maybe(ids('numbers'), 0.6) });
  for (const s of d.sites!)
    Object.assign(s, {
      mainNumber: c.maybe(ids('numbers'), 0.6),
      emergencyCallback: c.maybe(ids('numbers'), 0.5),
      emergencyTrunks: c.shuffled(c.some(trunks, 0.6)),
      emergencyNotify: c.some(ids('people'), 0.3),
      ladder: c.maybe(['l1', 'l2'], 0.9),
      blockedCallers: c.maybe(['+46x{6,12}', '+447700900x{3}'], 0.15),
    });
  for (const e of d.extensions)
    Object.assign(e, { outgoingNumber: c.maybe(ids('numbers'), 0.3), emergencyCallback: c.maybe(ids('numbers'), 0.2) });
  d.rungs = Array.from({ length: 11 }, (_, i) => ({
    id: `r${i}`,
    ladder: c.one(['l1', 'l2']),
    position: i,
    name: `R${i}`,
    map: c.one(MAPS),
    hours: c.maybe(['h1', 'h2', 'h3'], 0.2),
    forPeople: c.is(0.1) ? c.some(ids('people'), 0.4) : [],
    forTeams: c.is(0.1) ? c.some(['red', 'blue'], 0.7) : [],
    forSites: c.is(0.1) ? c.some(SITES, 0.6) : [],
    notForPeople: c.is(0.1) ? c.some(ids('people'), 0.3) : [],
    notForTeams: c.is(0.1) ? c.some(['red', 'blue'], 0.5) : [],
    notForSites: c.is(0.05) ? c.some(SITES, 0.4) : [],
    strip: c.one([0, 1, 1, 1, 2, 3]),
    prepend: c.maybe(['0', '1632'], 0.1),
    reading: c.one(['national', 'national', 'national', 'subscriber', 'international', 'private']),
    asDialled: c.is(0.3),
    trunks: c.shuffled(c.some(trunks, 0.6)),
    show: c.one(['usual', 'usual', 'usual', 'extension', 'hidden', 'fixed']),
    fixedNumber: c.one(ids('numbers')),
  }));
  d.sitePairs = c.is(0.4)
    ? [{ id: 'pair', siteA: 'quay', siteB: 'pier', codec: c.one(['G.729', 'G.711A']), packetMs: 20 }]
    : [];
  d.ringGroups = ['g1', 'g2'].map((id) => ({
    ...place(id),
    members: c.shuffled(c.some(exts, 0.3)),
    order: c.one(['all at once', 'in turn', 'at random', 'by stages']),
    ringSeconds: c.one([10, 15]),
    stageSeconds: c.one([4, 9]),
    stageMembers: c.one([1, 2]),
    skipBusy: c.is(0.4),
    stages: c.one(['', '1 for 3, 2', '2 for 9, 1 for 4, 1']),
    forwards: c.is(0.5),
    outside: c.is(0.4) ? c.some(['o1', 'o2', 'o3'], 0.5) : [],
  }));
  d.queues = ['q1', 'q2'].map((id) => ({
    ...place(id),
    agents: c.some(exts, 0.3),
    permanentAgents: c.some(exts, 0.2),
    longestWaitSeconds: c.maybe([30, 60], 0.6),
    mostWaiting: c.maybe([0, 1, 2], 0.5),
    exitKey: c.maybe(['0', '1'], 0.5),
    callbackKey: c.maybe(['2', '#'], 0.4),
    callbackAfterSeconds: c.one([0, 5]),
    secondAgents: c.is(0.4) ? c.some(exts, 0.3) : [],
    thirdAgents: c.is(0.3) ? c.some(exts, 0.2) : [],
    hours: c.maybe(['h1', 'h2', 'h3'], 0.5),
    closingEmpties: c.is(0.6),
    language: c.one(['', 'sv']),
  }));
  d.attendants = ['a1', 'a2'].map((id) => ({
    ...place(id),
    hours: c.maybe(['h1', 'h2', 'h3'], 0.8),
    greetingOpen: c.maybe(['short', 'long', 'silent'], 0.8),
    greetingClosed: c.maybe(['short'], 0.6),
    greetingHoliday: c.maybe(['long'], 0.3),
    greetingNotice: c.maybe(['short'], 0.3),
    digitSeconds: c.one([2, 3]),
    chooseSeconds: c.one([4, 6]),
    tries: c.one([1, 2, 3]),
    directDialling: c.one(['none', 'site', 'everyone']),
    dialByName: c.is(0.4),
    directMap: c.maybe(['2xxx', 'x.'], 0.3),
    outsideDialling: c.is(0.3),
    above: id === 'a2' && c.is(0.5) ? 'a1' : null,
    language: c.one(['', 'sv', 'de']),
  }));
  d.timeSwitches = ['s1', 's2', 's3'].map((id) => ({ ...place(id), hours: c.maybe(['h1', 'h2', 'h3'], 0.8) }));
  d.announcements = ['n-a', 'n-b'].map((id) => ({ ...place(id), prompt: c.maybe(['short', 'long', 'silent'], 0.8) }));
  d.directories = [{ ...place('dir'), scope: c.one(['site', 'everyone']), prompt: 'short', tries: c.one([1, 2]) }];
  d.outsideNumbers = ['o1', 'o2', 'o3'].map((id) => ({
    ...place(id),
    dial: c.one([
      '907700900123',
      '901632960150',
      '90046313900610',
      '9101',
      '999',
      '9999',
      '2101',
      '7012',
      '909098790123',
      '07700900123',
    ]),
    class: c.one(['a', 'b', 'c']),
  }));
  d.conferences = [place('room')];
  d.pageGroups = [{ ...place('page'), members: c.some(exts, 0.3) }];
  d.faxes = [place('fax')];
  d.parkPlaces = [{ ...place('bay'), returnSeconds: c.one([20, 60]) }];
  d.tones = [place('beep')];
  d.reachPlans = ['f1', 'f2'].map((id) => ({ ...place(id, 0.4), showsCaller: c.is(0.6) }));
  d.reachSteps = Array.from({ length: c.below(7) }, (_, i) => {
    const inside = c.is(0.6);
    return {
      id: `st${i}`,
      reachPlan: c.one(['f1', 'f2']),
      position: i,
      withPrevious: c.is(0.4),
      extension: inside ? c.one(exts) : null,
      outside: inside ? null : c.one(['o1', 'o2', 'o3']),
      seconds: c.one([10, 15, 20]),
      hours: c.maybe(['h1', 'h2', 'h3'], 0.3),
      when: c.one(['open', 'closed']),
      presences: c.is(0.3) ? ['pr-meeting'] : [],
    };
  });
  const all = [
    'extensions',
    'mailboxes',
    'ringGroups',
    'queues',
    'attendants',
    'timeSwitches',
    'announcements',
    'directories',
    'outsideNumbers',
    'conferences',
    'pageGroups',
    'faxes',
    'parkPlaces',
    'tones',
    'reachPlans',
  ].flatMap(ids);
  const lead = (share = 0.75) => c.maybe(all, share);
  for (const g of d.ringGroups!) Object.assign(g, { noAnswer: lead(), allBusy: lead(0.4) });
  for (const q of d.queues!)
    Object.assign(q, { exitTo: lead(), nobodySignedIn: lead(), full: lead(), waitedTooLong: lead(), closed: lead() });
  for (const m of d.mailboxes!) {
    const exit = c.is(0.4) ? { exitKey: c.one(['1', '2', '3', '0']), exitTo: c.one(all) } : {};
    Object.assign(m, { full: lead(0.5), longestMessageSeconds: c.one([10, 30, 180]), ...exit });
  }
  for (const s of d.timeSwitches!) Object.assign(s, { open: lead(0.95), closed: lead(0.9), holiday: lead(0.3) });
  for (const a of d.announcements!) Object.assign(a, { leadsTo: lead(0.6) });
  for (const x of d.directories!) Object.assign(x, { otherwise: lead() });
  for (const p of d.parkPlaces!) Object.assign(p, { returnTo: lead() });
  for (const p of d.reachPlans!) Object.assign(p, { end: lead(0.6) });
  for (const e of d.extensions) if (c.is(0.25)) Object.assign(e, { reachPlan: c.one(['f1', 'f2']) });
  for (const n of d.numbers) Object.assign(n, { belongsTo: lead(0.6) });
  for (const s of d.sites!) Object.assign(s, { blockedLeadTo: lead(0.4) });
  for (const t of d.trunks)
    Object.assign(t, {
      otherwise: lead(0.5),
      overflowTo: c.maybe([...d.numbers.map((n) => n.e164), '+447700900456'], 0.3),
    });
  d.attendantKeys = [];
  for (const attendant of ['a1', 'a2'])
    for (const mode of ['open', 'closed', 'holiday', 'notice'])
      for (const key of ['1', '2', '3', '#', '0', 'no key', 'wrong key', 'too many tries'])
        if (c.is(key === 'wrong key' ? 0.1 : mode === 'open' ? 0.5 : 0.2)) {
          const other = key.length > 1;
          const does = c.is(0.7)
            ? 'lead'
            : c.one(other ? ['back', 'end'] : ['ask extension', 'ask name', 'repeat', 'back', 'end']);
          d.attendantKeys.push({
            id: `k-${attendant}-${mode}-${d.attendantKeys.length}`,
            attendant,
            mode,
            key,
            does,
            leadsTo: does === 'lead' ? c.one(all) : null,
            silent: c.is(0.7),
          });
        }
  d.presenceRules = ['meeting', 'away'].map((activity) => {
    const act = () => c.one(['ring', 'mailbox', 'busy', 'forward']);
    return {
      id: `pr-${activity}`,
      name: activity,
      activity,
      internal: act(),
      internalTo: c.one(all),
      outside: act(),
      outsideTo: c.one(all),
    };
  });
  d.presenceChoices = c.is(0.4)
    ? [
        {
          id: 'pc',
          extension: c.one(exts),
          rule: 'pr-meeting',
          internal: 'ring',
          outside: 'forward',
          outsideTo: c.one(all),
        },
      ]
    : [];
  d.inboundRoutes = Array.from({ length: 5 }, (_, i) => {
    const dialled = c.is(0.25);
    return {
      id: `in${i}`,
      position: i,
      name: `In${i}`,
      numbers: c.some(ids('numbers'), 0.2),
      calledMap: c.one(['+4416329601x{2}', '+46x{6,12}', 'x{3,14}', '+4416329601[0-2]0', null, '2x{1,4}']),
      callingMap: c.maybe(['+46x{6,12}', '+44x{9,10}'], 0.25),
      callingCountries: c.some(['SE', 'GB', 'GG', 'DE', 'CA'], 0.06),
      callingNumbers: c.some(['+46313900610', '+441632960998', '+441481256789'], 0.06),
      callingWithheld: c.is(0.2),
      trunk: c.maybe(trunks, 0.3),
      leadsTo: dialled ? null : lead(0.85),
      dialledExtension: dialled,
    };
  }).filter((r) => r.numbers.length > 0 || r.calledMap !== null);
  d.routeRules = Array.from({ length: c.below(6) }, (_, i) => ({
    id: `rr${i}`,
    route: c.one(ids('inboundRoutes').length > 0 ? ids('inboundRoutes') : ['none']),
    position: i,
    hours: c.one(['h1', 'h2', 'h3']),
    when: c.one(['open', 'closed', 'holiday', 'notice']),
    leadsTo: c.one(all),
  }));
  d.serviceCodes = [
    ['withhold number', '*31'],
    ['mailbox', '*1'],
    ['park', '*4'],
    ['queue sign-in', '*21'],
    ['test emergency', '*99'],
    ['pick up', '*7'],
  ].map(([service, text], i) => ({
    id: `fc${i}`,
    name: service,
    site: 'quay',
    digits: text,
    service,
    queue: 'q1',
    parkPlace: 'bay',
  }));
  return {
    ...d,
    format: 'polydrome-plan',
    version: 5,
    organisation: {
      name: 'Random',
      numberSpace: perSite ? 'site' : 'organisation',
      interDigitSeconds: c.one([3, 4]),
      blockedCallers: c.maybe(['+4670x{7}', '+447700900x{3}'], 0.15),
      blockedLeadTo: lead(0.5),
      rejectsWithheld: c.is(0.1),
      withheldLeadTo: lead(0.5),
    },
    numberAdditions: [{ id: 'fiction', from: '+441632960000', to: '+441632960999', country: 'GB', kind: 'national' }],
  };
}

/** A random plan that can be read. */
export function randomPlan(c: Chance): Plan {
  for (;;) {
    const read = readPlan(document(c));
    if (read.ok) return read.plan;
  }
}

/** What may hold beside a plan; often little, sometimes much. */
export function randomSituation(c: Chance, plan: Plan, at: number): Situation {
  const much = c.is(0.5) ? 0.3 : 0.08;
  const exts = plan.extensions.map((e) => e.id);
  const all = [...exts, ...plan.outsideNumbers.map((o) => o.id)];
  const when = (hours: number) => new Date(at + hours * 3_600_000).toISOString();
  const leads = [...all, ...plan.mailboxes.map((m) => m.id), ...plan.attendants.map((a) => a.id)];
  const s: Record<string, unknown> = {};
  const put = (key: string, share: number, value: () => unknown) => {
    if (c.is(share)) s[key] = value();
  };
  put('busy', 0.5, () => c.some(exts, much));
  put('away', 0.4, () => c.some(exts, much));
  put('off', 0.4, () => c.some([...exts, ...plan.people.map((p) => p.id)], much / 2));
  put('doNotDisturb', 0.4, () => c.some(exts, much));
  put('presence', 0.3, () =>
    Object.fromEntries(c.some(exts, much).map((e) => [e, c.one(['meeting', 'away', 'pr-meeting', 'other'])])),
  );
  put('forwarding', 0.4, () =>
    c.some(exts, 0.3).map((extension) => ({
      extension,
      when: c.one(['always', 'busy', 'no answer', 'unreachable']),
      to: c.one([
        ...plan.extensions.map((e) => e.digits),
        '907700900123',
        '901632960150',
        '90046313900610',
        '999',
        '*7',
        '7012',
      ]),
      ...(c.is(0.4) ? { keyToTake: true } : {}),
    })),
  );
  put('reach', 0.3, () =>
    c.some(exts, 0.3).map((extension) => ({
      extension,
      ...(c.is(0.5) ? { showsCaller: c.is(0.5) } : {}),
      steps: Array.from({ length: 1 + c.below(4) }, () => ({
        ...(c.is(0.4) ? { withPrevious: c.is(0.7) } : {}),
        ...(c.is(0.5)
          ? { extension: c.one(exts) }
          : { dial: c.one(['907700900123', '901632960150', '999', '7012', '90046313900610']) }),
        seconds: c.one([5, 10, 20]),
        ...(c.is(0.3) ? { keyToTake: c.is(0.5) } : {}),
      })),
    })),
  );
  put('keys', 0.5, () => {
    let at = c.one([0, 0, 2, 5, 9]);
    // A name or an extension, as people press it; else this and that.
    const spelt = c.is(0.4) ? c.one(['266', '2667', '564', '5646', '75', ...plan.extensions.map((e) => e.digits)]) : '';
    const keys = [...spelt, ...Array.from({ length: c.below(6) }, () => c.one([...'0123456789#', '1', '2', '2', '3']))];
    return keys.map((key, i) => {
      at += i < spelt.length ? 1 : c.one([0, 1, 1, 2, 4, 9]);
      return { atSeconds: at, key };
    });
  });
  put('answers', 0.5, () =>
    c.some([...all, '907700900123', '901632960150'], 0.5).map((id) => ({ id, afterSeconds: c.one([0, 12, 18, 60]) })),
  );
  put('trunks', 0.5, () =>
    c.some(plan.trunks, 0.6).map((t) => ({
      id: t.id,
      ...(c.is(0.15) ? { up: false } : {}),
      ...(c.is(0.4) ? { inUse: c.below(5) } : {}),
      ...(c.is(0.25) ? { busyChannels: [1, 2, 3, 4].filter(() => c.is(0.4)) } : {}),
      ...(c.is(0.3)
        ? {
            fails: c.one([
              { q850: 34 },
              { q850: 17 },
              { sip: 503 },
              { sip: 603 },
              { sip: 408 },
              { noResponse: true },
              { authentication: true },
              { q850: 41, afterRinging: true },
            ]),
          }
        : {}),
    })),
  );
  put('links', 0.3, () => plan.sites.map((x) => ({ id: x.id, kbitPerSecond: c.one([0, 20, 60, 150]) })));
  put('agents', 0.4, () => c.some(exts, 0.5));
  put('fullMailboxes', 0.3, () =>
    c.some(
      plan.mailboxes.map((m) => m.id),
      0.5,
    ),
  );
  put('paused', 0.3, () => c.some(exts, 0.4));
  put('queues', 0.3, () => plan.queues.map((q) => ({ id: q.id, waiting: c.below(4) })));
  put('switches', 0.3, () =>
    plan.timeSwitches.map((x) => ({ id: x.id, setting: c.one(['open', 'closed', 'by hours']) })),
  );
  put('notices', 0.35, () =>
    Array.from({ length: 1 + c.below(2) }, (_, i) => ({
      id: `notice${i}`,
      ...(c.is(0.6)
        ? { hours: c.one(plan.hours).id }
        : { of: c.one([...plan.numbers, ...plan.inboundRoutes, ...plan.attendants, ...plan.queues]).id }),
      from: when(c.one([-5, 1])),
      until: c.is(0.5) ? when(c.one([-1, 5])) : null,
      open: c.is(0.5),
      leadsTo: c.maybe(leads, 0.6),
    })),
  );
  put('emergencyCalls', 0.2, () =>
    c.some(exts, 0.3).map((extension) => ({
      extension,
      shownNumber: c.one(plan.numbers).e164,
      at: new Date(at - c.below(80) * 60_000).toISOString(),
    })),
  );
  put('lines', 0.3, () => c.some(exts, 0.5).map((extension) => ({ extension, inUse: c.below(4) })));
  put('transfers', 0.3, () =>
    Array.from({ length: 1 + c.below(2) }, () => ({
      atSeconds: c.one([0, 20, 40, 90]),
      by: c.one(exts),
      to: c.one([...plan.extensions.map((e) => e.digits), ...leads, '907700900123', '901632960150', '999', '*4', '*7']),
      kind: c.one(TRANSFER_KINDS),
    })),
  );
  put('pin', 0.3, () => '4711');
  return situationSchema.parse(s);
}

/** What is kept beside a plan for longer than a call: what people set for themselves, notices, who is blocked, who is signed in. */
export function besideIn(c: Chance, plan: Plan, at: number): Situation {
  const { presence, forwarding, reach, agents, paused, fullMailboxes, switches, notices } = randomSituation(
    c,
    plan,
    at,
  );
  const leads = [...plan.extensions, ...plan.mailboxes, ...plan.attendants, ...plan.announcements].map((o) => o.id);
  const blocked = Array.from({ length: c.below(3) }, () => ({
    site: c.is(0.5) ? null : c.one(plan.sites).id,
    calling: c.one(['+441632960998', '+46701740605', null]),
    leadsTo: c.maybe(leads, 0.7),
  }));
  const kept = { presence, forwarding, reach, agents, paused, fullMailboxes, switches, notices };
  return { ...Object.fromEntries(Object.entries(kept).filter(([, v]) => v !== undefined)), blocked };
}

/** A call from a phone, from outside, or by a trunk. */
export function randomCall(c: Chance, plan: Plan, at: number): Call {
  const callers = [
    '+46701234567',
    '+447700900123',
    '+441632960999',
    '+441481256789',
    '+46313900610',
    '+12042345678',
    null,
  ];
  const calling = c.one(callers);
  const way = c.below(5);
  if (way === 0 || way === 4)
    return { from: { type: 'outside', calling }, dial: c.one(plan.numbers).e164, enBloc: true, at };
  if (way === 1) {
    const trunk = c.one(plan.trunks);
    const odd = ['441632960110', '960130', '140', '2101', '31', '0313900615', '999', '112', '46313900616'];
    const dial = c.is(0.75) ? deliveredFor(c, plan, trunk.deliveredForm) : c.one(odd);
    return { from: { type: 'trunk', id: trunk.id, calling }, dial, enBloc: true, at };
  }
  const from = c.one(plan.extensions);
  const dialled = [
    ...plan.extensions.map((e) => e.digits),
    ...plan.extensions.map((e) => e.digits),
    ...[
      ...plan.ringGroups,
      ...plan.queues,
      ...plan.attendants,
      ...plan.reachPlans,
      ...plan.outsideNumbers,
      ...plan.timeSwitches,
    ].flatMap((o) => o.digits ?? []),
    '901632960150',
    '907700900123',
    '90046313900610',
    '908001111',
    '909098790123',
    '9101',
    '7012',
    '999',
    '9112',
    '0112',
    '*31901632960150',
    '*31999',
    '*1',
    '*4',
    '*21',
    '*99',
    '',
    '1',
    '2101#',
    '*',
    '12345678901234567890123456789012',
    '90345678901234567890123456789012',
  ];
  const code = c.is(0.2) ? (plan.sites.find((s) => s.siteCode)?.siteCode ?? '') : '';
  return {
    from: { type: 'extension', id: from.id },
    dial: (code + c.one(dialled)).slice(0, 32),
    enBloc: c.is(0.25),
    at,
    withhold: c.is(0.1),
  };
}

/** What a carrier would deliver in a form: a number of the plan, or digits of an extension on a private link. */
function deliveredFor(c: Chance, plan: Plan, form: string): string {
  const { e164 } = c.one(plan.numbers);
  const significant = e164.slice(3);
  switch (form) {
    case 'plus':
    case 'digits':
      return e164.slice(1);
    case 'national':
      return `0${significant}`;
    case 'subscriber':
      return significant.slice(-6);
    case 'private':
      return c.one(plan.extensions).digits;
    default:
      return significant;
  }
}
