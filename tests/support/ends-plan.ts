import type { Plan } from '@/core/plan';
import type { ReasonCode } from '@/core/routing';
import { smallPlan, type smallDocument } from './small-plan';

/* The small plan with one of everything that a call can be led to. Digits 5xxx are theirs; codes begin with *. */

type Document = ReturnType<typeof smallDocument> & Record<string, unknown>;

/** Reasons that only these ends can give; their own table of cases shows each of them. */
export const END_REASONS: readonly ReasonCode[] = [
  'hours-fit',
  'hours-differ',
  'notice-leads',
  'trunk-link-full',
  'trunk-channel',
  'link-full',
  'presence',
  'reach-plan',
  'reach-rings',
  'reach-no-answer',
  'reach-unreachable',
  'reach-over',
  'group-rings',
  'group-no-answer',
  'group-nobody',
  'queue-takes',
  'queue-closed',
  'queue-before',
  'queue-nobody',
  'queue-full',
  'queue-callback',
  'queue-left',
  'queue-waited',
  'recorded',
  'prompt-plays',
  'prompt-heard',
  'time-switch',
  'attendant-greets',
  'mode-missing',
  'no-key',
  'wrong-key',
  'too-many-tries',
  'key-asks',
  'outside-asked',
  'key-pressed',
  'extension-dialled',
  'name-spelt',
  'names-read-out',
  'directory-asks',
  'leads-outside',
  'outside-unreadable',
  'conference',
  'fax',
  'page',
  'tone',
  'parked',
  'park-returns',
  'service',
  'withheld-by-code',
];

export function addEnds(d: Document): void {
  const quay = (id: string, digits: string | null, more: object = {}) => ({
    id,
    name: id,
    site: 'quay',
    digits,
    ...more,
  });
  d.teams = [{ id: 'sales', name: 'Sales' }];
  d.people.push(
    { id: 'joan', name: 'Joán Müller', site: 'quay', teams: ['sales'] } as never,
    { id: 'john', name: 'John Muller', site: 'pier' } as never,
    { id: 'yuki', name: '森 由紀', site: 'quay', spelling: 'Yuki Mori' } as never,
  );
  d.extensions.push(
    {
      id: 'x-joan',
      digits: '2201',
      name: 'Joán Müller',
      person: 'joan',
      site: 'quay',
      class: 'staff',
      reachPlan: 'find-joan',
    },
    { id: 'x-john', digits: '2202', name: 'John Muller', person: 'john', site: 'pier', class: 'staff' },
    { id: 'x-yuki', digits: '2203', name: 'Yuki', person: 'yuki', site: 'quay', class: 'staff', mailbox: 'box' },
  );
  d.holidayCalendars = [
    { id: 'gb-days', name: 'GB', dates: [{ date: '2026-12-25', name: 'Christmas Day', yearly: true }] },
  ];
  d.hours = [
    {
      id: 'office',
      name: 'Office',
      zone: 'Europe/London',
      weekly: 'mon-fri 9-17:30',
      holidays: ['gb-days'],
      exceptions: [{ date: '2026-12-24', open: '9-12' }],
    },
  ];
  d.prompts = [
    { id: 'hello', name: 'Hello', seconds: 10 },
    { id: 'night', name: 'Night', seconds: 5 },
    { id: 'consent', name: 'Consent', seconds: 3 },
  ];
  d.ringGroups = [
    quay('desk', '5001', { members: ['e1', 'e3'], ringSeconds: 20, noAnswer: 'box' }),
    quay('round', '5002', { members: ['e1', 'e3', 'e4'], order: 'in turn', ringSeconds: 15 }),
    quay('empty', '5003', { allBusy: 'box' }),
  ];
  d.pageGroups = [quay('tannoy', '5010', { members: ['e1', 'e3'] })];
  d.queues = [
    quay('line', '5020', {
      agents: ['e1', 'e2'],
      permanentAgents: ['e3'],
      longestWaitSeconds: 120,
      waitedTooLong: 'box',
      mostWaiting: 2,
      full: 'desk',
      intro: 'hello',
      recorded: true,
      consent: 'consent',
      callbackKey: '1',
      callbackAfterSeconds: 30,
      exitKey: '0',
      exitTo: 'box',
    }),
    quay('nobody', '5021', { agents: ['e1'], nobodySignedIn: 'box' }),
  ];
  d.attendants = [
    quay('menu', '5030', {
      hours: 'office',
      greetingOpen: 'hello',
      greetingClosed: 'night',
      directDialling: 'everyone',
      dialByName: true,
      tries: 2,
    }),
    quay('bare', '5031', { hours: 'office' }),
  ];
  const key = (mode: string, k: string, leadsTo: string) => ({
    id: `k-${mode}-${d.extensions.length}-${k.replace(/\W/g, 'x')}`,
    attendant: 'menu',
    mode,
    key: k,
    leadsTo,
  });
  d.attendantKeys = [
    key('open', '1', 'line'),
    key('open', '3', 'fax'),
    key('open', '#', 'menu'),
    key('open', 'no key', 'desk'),
    key('closed', '1', 'box'),
    key('closed', 'no key', 'box'),
    { id: 'k-bare', attendant: 'bare', mode: 'open', key: '1', leadsTo: 'box' },
  ];
  d.timeSwitches = [quay('duty', '5040', { hours: 'office', open: 'desk', closed: 'box', holiday: 'closing' })];
  d.announcements = [
    quay('closing', '5050', { prompt: 'night' }),
    quay('first', '5051', { prompt: 'hello', leadsTo: 'desk' }),
  ];
  d.directories = [quay('names', '5060', { prompt: 'hello', otherwise: 'box', tries: 1 })];
  d.outsideNumbers = [
    quay('mobile', '5070', { dial: '902079460123', class: 'staff' }),
    quay('abroad-end', '5071', { dial: '90046313900610', class: 'staff' }),
    quay('wrong-end', '5072', { dial: '999', class: 'staff' }),
  ];
  d.conferences = [quay('room', '5080')];
  d.faxes = [quay('fax', '5081', { email: 'fax@lanternfold.example' })];
  d.parkPlaces = [quay('bay', '5082', { returnSeconds: 60, returnTo: 'desk' })];
  d.tones = [quay('beep', '5083', { tone: 'busy' })];
  d.reachPlans = [quay('find-joan', null, { end: 'box', showsCaller: true }), quay('hollow', '5090', { end: 'box' })];
  d.reachSteps = [
    { id: 's1', reachPlan: 'find-joan', position: 1, extension: 'x-joan', seconds: 15 },
    { id: 's2', reachPlan: 'find-joan', position: 2, withPrevious: true, extension: 'e1', seconds: 10 },
    { id: 's3', reachPlan: 'find-joan', position: 3, outside: 'mobile', seconds: 20 },
  ];
  const code = (id: string, digits: string, service: string, more: object = {}) => ({
    id,
    name: service,
    site: 'quay',
    digits,
    service,
    ...more,
  });
  d.serviceCodes = [
    code('f-box', '*1', 'mailbox'),
    code('f-in', '*21', 'queue sign-in', { queue: 'line' }),
    code('f-hide', '*31', 'withhold number'),
    code('f-park', '*41', 'park', { parkPlace: 'bay' }),
    code('f-fetch', '*42', 'fetch', { parkPlace: 'bay' }),
    code('f-set', '*51', 'time-switch set', { timeSwitch: 'duty' }),
    code('f-record', '*61', 'record a prompt', { prompt: 'hello' }),
    code('f-pick', '*71', 'pick up'),
    code('f-test', '*99', 'test emergency'),
  ];
  d.presenceRules = [
    {
      id: 'p-meeting',
      name: 'In a meeting',
      activity: 'meeting',
      internal: 'busy',
      outside: 'forward',
      outsideTo: 'desk',
    },
    { id: 'p-away', name: 'Out', activity: 'away', internal: 'mailbox', outside: 'mailbox' },
    { id: 'p-work', name: 'At work', activity: 'working' },
  ];
  d.numbers.push(
    { id: 'n110', e164: '+441632960110', site: 'quay', trunk: 'main' },
    { id: 'n111', e164: '+441632960111', site: 'quay', trunk: 'main', belongsTo: 'menu' },
  );
  d.inboundRoutes.push({ id: 'r-hours', position: 6, name: 'By hours', numbers: ['n110'], leadsTo: 'box' });
  d.routeRules = [
    { id: 'rr-holiday', route: 'r-hours', position: 1, hours: 'office', when: 'holiday', leadsTo: 'closing' },
    { id: 'rr-open', route: 'r-hours', position: 2, hours: 'office', when: 'open', leadsTo: 'desk' },
  ];
}

/** The plan with every kind of end, changed before it is read. */
export function endsPlan(change: (document: Document) => void = () => {}): Plan {
  return smallPlan((document) => {
    addEnds(document as Document);
    change(document as Document);
  });
}
