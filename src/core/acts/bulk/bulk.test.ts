import { describe, expect, it } from '@jest/globals';
import { lanternfold } from '../../../../demo/lanternfold';
import { readPlan, type Mailbox } from '../../plan';
import { bulkChangeSchema, describeChanges, planBulk } from './';

const read = readPlan(lanternfold());
if (!read.ok) throw new Error('demo');
const demo = read.plan;
const bookings = demo.extensions.filter((e) =>
  demo.people.find((p) => p.id === e.person)?.teams.includes('team-bookings'),
);

describe('one change of many', () => {
  it('lists what differs and nothing else, object by object', () => {
    const { lines, objects, errors } = planBulk(demo, bookings, { ringSeconds: 40, class: 'bookings' });
    expect(errors).toEqual([]);
    expect(lines.length).toBe(objects.length);
    const changed = bookings.filter((e) => e.ringSeconds !== 40 || e.class !== 'bookings');
    expect(objects.map((o) => o.after.id).sort()).toEqual(changed.map((e) => e.id).sort());
    expect(lines.find((l) => l.id === 'e-2105')!.changes).toEqual([{ title: 'Rings for', before: '25', after: '40' }]);
  });

  it('changes mailboxes and people behind the extensions, each once', () => {
    const shared = structuredClone(demo);
    shared.extensions.find((e) => e.id === 'e-2106')!.mailbox = 'm-2105';
    const two = shared.extensions.filter((e) => ['e-2105', 'e-2106'].includes(e.id));
    const { objects } = planBulk(shared, two, {
      language: 'sv',
      mailbox: { mostMessages: 50 },
      addTeams: ['team-customs'],
    });
    expect(objects.map((o) => o.kind).sort()).toEqual(['mailbox', 'person', 'person']);
  });

  it('adds to a team and takes out of one; whoever is so already stays', () => {
    const { objects } = planBulk(demo, bookings, { addTeams: ['team-bookings'], removeTeams: ['team-management'] });
    const managers = bookings.filter((e) =>
      demo.people.find((p) => p.id === e.person)!.teams.includes('team-management'),
    );
    expect(objects.length).toBe(managers.length);
  });

  it('sets trunk, state, day and site of numbers, and of nothing else', () => {
    const some = demo.numbers.slice(0, 5);
    const change = { number: { trunk: 'sundvik', state: 'reserved' as const, activeFrom: '2027-02-01' } };
    const { lines, objects } = planBulk(demo, [], change, some);
    expect(objects.map((o) => o.after)).toEqual(some.map((n) => ({ ...n, ...change.number })));
    expect(objects.every((o) => o.kind === 'number')).toBe(true);
    expect(lines[0]!.changes.map((c) => c.title)).toEqual(['State', 'Active from', 'Trunk']);
    const { errors } = planBulk(demo, [], { number: { activeFrom: 'soon' } } as never, some.slice(0, 1));
    expect(errors).toHaveLength(1);
  });

  it('tells what can’t be changed so', () => {
    const boxless = structuredClone(demo);
    (boxless.mailboxes.find((m) => m.id === 'm-2105') as Mailbox).email = null;
    const { errors } = planBulk(boxless, bookings, { mailbox: { attachSound: true, afterMail: 'delete' } });
    expect(errors.map((e) => e.label)).toEqual([demo.mailboxes.find((m) => m.id === 'm-2105')!.name]);
  });

  it.each([
    [{ ringSeconds: 2 }, false],
    [{ ringSeconds: 20 }, true],
    [{ mailbox: { mostMessages: 0 } }, false],
    [{ outgoingNumber: null }, true],
    [{ colour: 'red' }, false],
  ])('%j is read by the schema of its fields: %s', (change, ok) => {
    expect(bulkChangeSchema.safeParse(change).success).toBe(ok);
  });

  it('an empty change sets nothing by itself', () => {
    expect(bulkChangeSchema.parse({ mailbox: { on: false } })).toEqual({ mailbox: { on: false } });
    expect(planBulk(demo, bookings, bulkChangeSchema.parse({})).objects).toEqual([]);
  });

  it('says what is new and what goes in one line', () => {
    const person = demo.people[0]!;
    expect(describeChanges(demo, [{ kind: 'person', before: person, after: null }])).toEqual([
      { kind: 'person', id: person.id, label: person.name, fate: 'goes', changes: [] },
    ]);
  });
});
