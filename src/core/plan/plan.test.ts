import { describe, expect, it } from '@jest/globals';
import { emptyPlan, fieldsOf, OBJECT_KINDS, planText, readPlan, referenceFieldsOf, referrersTo, differences } from '.';
import { lanternfold } from '../../../demo/lanternfold';

const whole = () =>
  JSON.parse(JSON.stringify(lanternfold())) as Record<string, any[]> & { organisation: Record<string, unknown> }; // eslint-disable-line @typescript-eslint/no-explicit-any

describe('the plan document', () => {
  it('reads the demo company', () => {
    const read = readPlan(whole());
    expect(read.ok && read.plan.extensions.length).toBeGreaterThan(125);
  });

  it.each<[string, (p: ReturnType<typeof whole>) => void, string, RegExp]>([
    ['a misspelt key', (p) => (p.sites![0].contry = 'GB'), 'sites.0', /“contry”, which nothing reads/],
    ['a missing field', (p) => delete p.extensions![0].class, 'extensions.0.class', /missing/],
    ['a wrong type', (p) => (p.trunks![0].channels = 'many'), 'trunks.0.channels', /wrong type; a number/],
    ['a broken map', (p) => (p.rungs![0].map = '9(0'), 'rungs.0.map', /\( is not closed at position 4/],
    [
      'digits twice',
      (p) => (p.extensions![1].digits = p.extensions![0].digits),
      'extensions.1.digits',
      /digits are unique/,
    ],
    ['a number twice', (p) => (p.numbers![1].e164 = p.numbers![0].e164), 'numbers.1.e164', /stands there once/],
    ['an id twice', (p) => (p.people![1].id = p.people![0].id), 'people.1.id', /already that of person/],
    [
      'a reference to nothing',
      (p) => (p.extensions![0].mailbox = 'nowhere'),
      'extensions.0.mailbox',
      /not in the plan/,
    ],
    [
      'a reference of the wrong kind',
      (p) => (p.numbers![3].belongsTo = 'kestrel'),
      'numbers.3.belongsTo',
      /refers to trunk Kestrel Voice; the id of something that calls can be led to is needed/,
    ],
    ['a missing trunk in a list', (p) => (p.rungs![0].trunks = ['gone']), 'rungs.0.trunks.0', /not in the plan/],
    ['a zone that is none', (p) => (p.sites![0].zone = 'Mars/Olympus'), 'sites.0.zone', /no time zone/],
    ['a country that is none', (p) => (p.sites![0].country = 'XX'), 'sites.0.country', /no country/],
    [
      'ranges that overlap',
      (p) => (p.sites![1].ranges = [{ from: '2100', to: '2199' }]),
      'sites.1.ranges.0',
      /overlaps/,
    ],
    [
      'a range backwards',
      (p) => (p.sites![1].ranges = [{ from: '3099', to: '3000' }]),
      'sites.1.ranges.0',
      /runs backwards/,
    ],
    ['a fixed number that is none', (p) => (p.rungs![0].show = 'fixed'), 'rungs.0.fixedNumber', /needs one/],
    [
      'a route that takes nothing',
      (p) => (p.inboundRoutes![0].numbers = []),
      'inboundRoutes.0.numbers',
      /name a called number/,
    ],
    [
      'a blocked end that is none',
      (p) => (p.organisation.blockedLeadTo = 'nowhere'),
      'organisation.blockedLeadTo',
      /not in the plan/,
    ],
    ['control characters', (p) => (p.people![0].name = 'A\u0007'), 'people.0.name', /control character/],
  ])('refuses %s and says where', (_, spoil, path, sentence) => {
    const plan = whole();
    spoil(plan);
    const read = readPlan(plan);
    const errors = read.ok ? [] : read.errors;
    expect(errors.map((e) => e.path)).toContain(path);
    expect(errors.find((e) => e.path === path)!.sentence).toMatch(sentence);
  });

  it.each([null, 7, 'plan', [], {}, { format: 'other' }])('refuses %j', (document) =>
    expect(readPlan(document).ok).toBe(false),
  );

  it('has one canonical text', () => {
    const shuffled = whole();
    shuffled.numbers!.reverse();
    shuffled.extensions!.reverse();
    const [a, b] = [readPlan(whole()), readPlan(shuffled)];
    expect(a.ok && b.ok && planText(a.plan) === planText(b.plan)).toBe(true);
  });

  it('gives every field of every object a title, and references a kind', () => {
    for (const kind of OBJECT_KINDS)
      for (const f of fieldsOf(kind)) expect([kind, f.field, typeof f.title]).toEqual([kind, f.field, 'string']);
    expect(referenceFieldsOf('extension').map((f) => f.field)).toEqual([
      'site',
      'person',
      'class',
      'outgoingNumber',
      'mailbox',
      'reachPlan',
      'emergencyCallback',
    ]);
  });

  it('finds what refers to an object and what differs', () => {
    const read = readPlan(whole());
    if (!read.ok) throw new Error('demo');
    expect(referrersTo(read.plan, 'e-2000').map((r) => `${r.kind} ${r.field}`)).toEqual([
      'announcement leadsTo',
      'directory otherwise',
      ...Array.from({ length: 4 }, () => 'parkPlace returnTo'),
      ...Array.from({ length: 2 }, () => 'attendantKey leadsTo'),
      'routeRule leadsTo',
    ]);
    const changed = {
      ...read.plan,
      people: read.plan.people.map((p, i) => (i === 0 ? { ...p, name: 'Other' } : p)).slice(0, -1),
    };
    expect(differences(read.plan, changed).map((d) => `${d.kind} ${d.id}`)).toHaveLength(2);
    expect(differences(emptyPlan('A'), emptyPlan('A'))).toEqual([]);
  });
});
