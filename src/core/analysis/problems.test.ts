import { describe, expect, it } from '@jest/globals';
import { endsPlan } from '../../../tests/support/ends-plan';
import { compile } from '../routing';
import { integrityErrors, planWith } from '../plan';
import { mendOf, problemsOf, type Problem } from '.';

/* Each problem of ENGINE E14: a plan that has it, said once and on the right object, and the same plan without it. */

type Change = NonNullable<Parameters<typeof endsPlan>[0]>;
type Doc = Parameters<Change>[0];

const NOW = Date.parse('2026-11-26T12:00:00Z');
const of = (list: unknown, id: string) =>
  (list as { id: string }[]).find((o) => o.id === id) as Record<string, unknown>;
const set =
  (list: keyof Doc | string, id: string, values: object): Change =>
  (d) =>
    Object.assign(of((d as Record<string, unknown>)[list as string], id), values);
const add =
  (list: string, object: object): Change =>
  (d) =>
    ((d as Record<string, unknown[]>)[list] ??= []).push(object);
const both =
  (...changes: Change[]): Change =>
  (d) =>
    changes.forEach((c) => c(d));

const rung = (id: string, map: string, more: object = {}) =>
  add('rungs', { id, ladder: 'out', position: 99, name: id, map, trunks: ['main'], ...more });
const phone = (id: string, digits: string, more: object = {}) =>
  add('extensions', { id, digits, name: id, kind: 'place', site: 'quay', class: 'mute', ...more });

/** Type, what brings it about, on which object it is said, and what its sentence says. */
const CASES: [string, Change, string, RegExp][] = [
  ['emergency-list-empty', set('sites', 'quay', { emergencyTrunks: [] }), 'quay', /have no trunk/],
  ['emergency-other-country', set('sites', 'kaj', { emergencyTrunks: ['swede', 'main'] }), 'kaj', /another country/],
  ['emergency-no-callback', set('sites', 'quay', { mainNumber: null }), 'quay', /no callback number/],
  ['emergency-nobody-told', set('sites', 'quay', { emergencyNotify: [] }), 'quay', /Nobody is told/],
  [
    'emergency-all-busy',
    both(set('trunks', 'main', { keptForEmergency: 0 }), set('trunks', 'other', { keptForEmergency: 0 })),
    'quay',
    /none is kept/,
  ],
  [
    'behind-emergency',
    add('ringGroups', { id: 'late', name: 'Late', site: 'quay', digits: '1123', members: ['e1'] }),
    'late',
    /1123 Late begins with 112/,
  ],
  ['behind-emergency', phone('same', '112'), 'same', /112 same is an emergency number/],
  ['behind-emergency', rung('nines', '99x{3}'), 'nines', /such|begins with/],
  ['rule-never-fits', rung('swallowed', '901632x{6}'), 'swallowed', /can never fit/],
  [
    'rule-never-fits',
    both(set('rungs', 'national', { hours: 'office' }), rung('by-day', '902079x{6}', { hours: 'office' })),
    'by-day',
    /can never fit: National/,
  ],
  ['hidden-by-another', rung('inside', '2101|2102|2103'), 'inside', /never used: everything it takes, such as 210/],
  [
    'hidden-by-another',
    add('inboundRoutes', {
      id: 'r-late',
      position: 90,
      name: 'Late',
      numbers: ['n110'],
      trunk: 'main',
      leadsTo: 'box',
    }),
    'r-late',
    /Late can never fit: By hours/,
  ],
  ['timer-waits', phone('short', '99'), 'short', /Whoever dials 99 for short waits 4 s/],
  ['timer-waits', rung('longer', '2101x{2}'), 'longer', /Whoever dials 2101 inside waits/],
  ['timer-waits', rung('endless', '8x.'), 'endless', /never knows that a number is over/],
  ['mailbox-no-owner', set('mailboxes', 'ann-box', { owners: [] }), 'ann-box', /no owner/],
  ['caller-id-not-owned', set('extensions', 'e1', { outgoingNumber: 'n301' }), 'e1', /no trunk of its ladder owns/],
  [
    'caller-id-not-owned',
    rung('lent', '9555', { show: 'fixed', fixedNumber: 'n300' }),
    'lent',
    /shows \+441632960300 on Main/,
  ],
  [
    'caller-id-of-other-trunk',
    rung('by-other', '90777x{3}', { trunks: ['other'] }),
    'by-other',
    /leaves by Other, which does not own the numbers that \d+ phones? shows?/,
  ],
  [
    'number-held-twice',
    both(set('inboundRoutes', 'r-hours', { numbers: ['n100', 'n301'] }), set('numbers', 'n301', { belongsTo: 'e1' })),
    'n301',
    /belongs to .*, but the inbound route .* takes it first/,
  ],
  [
    'channels-all-kept',
    set('trunks', 'main', { channels: 4, keptForIncoming: 3, keptForEmergency: 1 }),
    'main',
    /keeps 4 of 4 channels/,
  ],
  ['number-no-route', set('inboundRoutes', 'r-hours', { numbers: ['n100'] }), 'n110', /lead nowhere/],
  [
    'route-never-fits',
    add('inboundRoutes', { id: 'r-lost', position: 91, name: 'Lost', calledMap: '+49x{9}', leadsTo: 'box' }),
    'r-lost',
    /none of our numbers fits/,
  ],
  ['otherwise-missing', set('inboundRoutes', 'r-hours', { leadsTo: null }), 'r-hours', /none of its time rules fits/],
  ['dead-end', set('timeSwitches', 'duty', { closed: null }), 'duty', /leads nowhere when closed/],
  [
    'mode-missing',
    add('attendants', { id: 'blank', name: 'Blank', site: 'quay', hours: 'office', greetingOpen: 'hello' }),
    'blank',
    /when closed/,
  ],
  ['prompt-missing', set('attendants', 'menu', { greetingOpen: null }), 'menu', /greets nobody/],
  ['queue-nobody', set('queues', 'nobody', { agents: [] }), 'nobody', /no agents/],
  ['group-nobody', set('ringGroups', 'desk', { members: ['e4'] }), 'desk', /no member with a phone/],
  ['hours-hole', set('hours', 'office', { weekly: 'mon 9-12, mon 13-17' }), 'office', /hole/],
  ['hours-overlap', set('hours', 'office', { weekly: 'mon 9-12, mon 10-11' }), 'office', /twice/],
  [
    'loop',
    both(
      set('timeSwitches', 'duty', { hours: null, open: 'turn' }),
      add('timeSwitches', { id: 'turn', name: 'Turn', site: 'quay', open: 'duty' }),
    ),
    'duty',
    /round without end/,
  ],
  ['link-budget', set('sites', 'pier', { linkKbitPerSecond: 20 }), 'pier', /none gets through/],
  [
    'calendar-ends',
    set('holidayCalendars', 'gb-days', { dates: [{ date: '2026-12-25', name: 'Christmas Day' }] }),
    'gb-days',
    /ends on 2026-12-25/,
  ],
  ['fax-way-speaks', set('announcements', 'first', { leadsTo: 'fax' }), 'fax', /through first/],
  ['fax-way-speaks', phone('machine', '2599', { kind: 'fax', mailbox: 'box' }), 'machine', /has a mailbox/],
  ['ring-past-mailbox', set('reachSteps', 's3', { seconds: 40, keyToTake: false }), 's3', /without asking for a key/],
  [
    'toll-fraud',
    both(set('trunks', 'link', { transit: true }), set('trunks', 'main', { transit: true })),
    'r-link',
    /Link → From link → .* → Main/,
  ],
  [
    'toll-fraud',
    (d) => {
      const { rights } = d.classes[0]! as { rights: Record<string, object> };
      d.classes.push({
        id: 'loose',
        name: 'Loose',
        rights: { ...rights, international: { allow: true, forward: true } },
      } as never);
      Object.assign(of(d.outsideNumbers, 'abroad-end'), { class: 'loose' });
      Object.assign(of(d.ringGroups, 'desk'), { noAnswer: 'abroad-end' });
    },
    'abroad-end',
    /at our cost: .*desk.* → abroad-end/,
  ],
  [
    'toll-fraud',
    (d) =>
      Object.assign(d.classes[0]!, {
        rights: { ...(d.classes[0] as { rights: object }).rights, premium: { allow: true, transfer: true } },
      }),
    'staff',
    /may transfer outside callers to premium rate/,
  ],
  [
    'digits-mismatch',
    set('trunks', 'main', { deliveredForm: 'significant', deliveredLength: 4 }),
    'main',
    /would be read as/,
  ],
  [
    'codec-mismatch',
    add('sitePairs', { id: 'pair', siteA: 'quay', siteB: 'pier', codec: 'G.729' }),
    'main',
    /never leave by Main/,
  ],
];

/** The plan with every kind of end, without what these cases bring about. */
const calm: Change = (d) => {
  for (const t of d.trunks) Object.assign(t, { keptForEmergency: 1 });
  Object.assign(of(d.extensions, 'e7'), { digits: '2998' });
  d.rungs = d.rungs.filter((r) => r.id !== 'covered' && r.id !== 'fixed');
  Object.assign(of(d.ringGroups, 'desk'), { noAnswer: 'box' });
  Object.assign(of(d.timeSwitches, 'duty'), { open: 'desk' });
};
const found = (change: Change): Problem[] => problemsOf(compile(endsPlan((d) => (calm(d), change(d)))), NOW);

describe('problems', () => {
  it.each(CASES)(
    '%s is said once, on the right object, and not without its cause (%#)',
    (type, cause, id, sentence) => {
      const same = (p: Problem) => p.type === type && p.object.id === id && sentence.test(p.sentence);
      expect(found(() => undefined).filter(same)).toEqual([]);
      const said = found(cause).filter(same);
      expect(said.map((p) => [p.type, p.object.id])).toEqual([[type, id]]);
      expect(said[0]!.mend).not.toBe('');
    },
  );

  /** Types that one press mends; of others somebody has to choose. */
  const MENDED = new Set([
    'emergency-list-empty',
    'emergency-other-country',
    'emergency-no-callback',
    'emergency-all-busy',
    'rule-never-fits',
    'hidden-by-another',
    'caller-id-not-owned',
    'number-held-twice',
    'channels-all-kept',
    'number-no-route',
    'route-never-fits',
    'link-budget',
    'ring-past-mailbox',
    'codec-mismatch',
  ]);

  it.each(CASES)('%s is mended by its button where one press does it (%#)', (type, cause, id) => {
    const plan = endsPlan((d) => (calm(d), cause(d)));
    const exchange = compile(plan);
    const before = problemsOf(exchange, NOW);
    const problem = before.find((p) => p.type === type && p.object.id === id)!;
    const mend = mendOf(exchange, problem);
    const mends = MENDED.has(type) || mend !== null;
    expect(mend !== null).toBe(mends);
    if (!mend) return;
    const after = planWith(plan, mend.edits);
    expect(integrityErrors(after)).toEqual([]);
    const left = problemsOf(compile(after), NOW);
    const key = ({ type: t, object }: Problem) => `${t} ${object.kind} ${object.id}`;
    expect(left.map(key)).not.toContain(key(problem));
    // Nothing graver comes of it.
    const known = new Set(before.map(key));
    expect(left.filter((p) => p.severity === 'error' && !known.has(key(p)))).toEqual([]);
    expect(mend.label).not.toBe('');
  });

  it('are shown, each type of them, by a case here', () => {
    // Those of kinds that only an act can bring about are with their acts.
    const known = new Set(CASES.map(([type]) => type));
    const elsewhere = ['key-waits', 'reach-plan-nobody', 'outside-nowhere', 'ringing'];
    const all = CASES.flatMap(([, cause]) => found(cause).map((p) => p.type));
    expect([...new Set(all)].filter((t) => !known.has(t) && !elsewhere.includes(t))).toEqual([]);
  });

  it('a rule with hours covers another only while it is open', () => {
    const covered = (hours: object) =>
      found(
        both(
          add('hours', { id: 'late', name: 'Late', zone: 'Europe/London', weekly: 'mon-fri 12-20' }),
          set('rungs', 'national', hours),
          rung('below', '902079x{6}', { hours: 'office' }),
        ),
      ).some((p) => p.type === 'rule-never-fits' && p.object.id === 'below');
    expect([{ hours: null }, { hours: 'office' }, { hours: 'late' }].map(covered)).toEqual([true, true, false]);
  });

  it('a rule for a team covers nobody else', () => {
    const below = rung('below', '902079x{6}');
    const says = (lists: object) =>
      found(both(set('rungs', 'national', lists), below)).some(
        (p) => p.type === 'rule-never-fits' && p.object.id === 'below',
      );
    expect([says({ forTeams: ['sales'] }), says({})]).toEqual([false, true]);
  });
});
