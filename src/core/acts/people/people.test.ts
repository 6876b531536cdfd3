import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { lanternfold } from '../../../../demo/lanternfold';
import { endsPlan } from '../../../../tests/support/ends-plan';
import { integrityErrors, objectsOf, KINDS, readPlan, referrersTo, type AnyObject, type Plan } from '../../plan';
import {
  SAME_PARTS,
  comparePeople,
  compareRights,
  leaving,
  planLeave,
  planMove,
  planSameAs,
  proposeMove,
  withChanges,
  type LeaveChoice,
  type LeaveItem,
} from './';

const read = readPlan(lanternfold());
if (!read.ok) throw new Error('demo');
const demo = read.plan;

const applied = (
  plan: Plan,
  changed: readonly { kind: never; before: AnyObject | null; after: AnyObject | null }[],
) => {
  const out = withChanges(
    plan,
    new Map(changed.filter((c) => c.before).map((c) => [c.before!.id, c])),
  ) as unknown as Record<string, AnyObject[]>;
  for (const c of changed)
    if (!c.before)
      out[KINDS[c.kind as keyof typeof KINDS].list] = [...out[KINDS[c.kind as keyof typeof KINDS].list]!, c.after!];
  return out as unknown as Plan;
};

/** A plan full of references: the company of all ends, with people and extensions woven in at random. */
const wovenPlan = fc
  .record({
    owners: fc.array(fc.tuple(fc.nat(), fc.nat()), { maxLength: 12 }),
    members: fc.array(fc.tuple(fc.nat(), fc.nat()), { maxLength: 12 }),
    leads: fc.array(fc.tuple(fc.nat(), fc.nat()), { maxLength: 8 }),
    notify: fc.array(fc.nat(), { maxLength: 4 }),
  })
  .map(({ owners, members, leads, notify }) => {
    const plan = structuredClone(endsPlan());
    const at = <T>(list: T[], i: number) => list[i % list.length]!;
    for (const [m, p] of owners) {
      const box = at(plan.mailboxes, m);
      box.owners = [...new Set([...box.owners, at(plan.people, p).id])];
    }
    for (const [g, e] of members) {
      const group = at(plan.ringGroups, g);
      group.members = [...new Set([...group.members, at(plan.extensions, e).id])];
    }
    for (const [n, e] of leads) at(plan.numbers, n).belongsTo = at(plan.extensions, e).id;
    for (const p of notify) {
      const site = plan.sites[0]!;
      site.emergencyNotify = [...new Set([...site.emergencyNotify, at(plan.people, p).id])];
    }
    plan.extensions.forEach((e, i) => {
      if (!e.person && e.kind === 'person') e.person = at(plan.people, i).id;
    });
    return plan;
  });

/** A choice for an item, by a number; what takes a place is anything of the right kind. */
function chosen(plan: Plan, item: LeaveItem, n: number): LeaveChoice {
  const way = item.ways[n % item.ways.length]!;
  if (way === 'hand over') return { do: way, to: plan.people[n % plan.people.length]!.id };
  if (way !== 'replace') return { do: way };
  const list = item.target === 'person' ? plan.people : item.target === 'mailbox' ? plan.mailboxes : plan.extensions;
  return { do: way, by: list[n % list.length]!.id };
}

describe('somebody leaves', () => {
  it('and nothing dangles: in any plan, whatever is chosen', () => {
    fc.assert(
      fc.property(wovenPlan, fc.nat(), fc.array(fc.nat(50), { minLength: 40, maxLength: 40 }), (plan, who, numbers) => {
        expect(integrityErrors(plan)).toEqual([]);
        const person = plan.people[who % plan.people.length]!;
        const choices = Object.fromEntries(
          leaving(plan, person.id).map((item, i) => [item.key, chosen(plan, item, numbers[i % numbers.length]!)]),
        );
        const { changed, errors } = planLeave(plan, person.id, choices);
        const after = withChanges(plan, new Map(changed.map((c) => [c.before.id, c])));
        expect(integrityErrors(after)).toEqual([]);
        expect(after.people.some((p) => p.id === person.id)).toBe(false);
        expect(referrersTo(after, person.id)).toEqual([]);
        for (const c of changed) if (c.after) expect(KINDS[c.kind].schema.safeParse(c.after).success).toBe(true);
        // What can't be is said of an item that there is.
        for (const e of errors) expect(Object.keys(choices)).toContain(e.key);
      }),
      { numRuns: 300 },
    );
  });

  it('with the proposals alone everything of theirs goes, and numbers are free', () => {
    const items = leaving(demo, 'p-2105');
    expect(items.map((i) => [i.kind, i.proposed])).toEqual(
      [
        ['extension', 'delete'],
        ['mailbox', 'delete'],
        ['routeRule', 'delete'],
        ['number', 'empty'],
      ].sort((a, b) => items.findIndex((i) => i.kind === a[0]) - items.findIndex((i) => i.kind === b[0])),
    );
    const { changed, errors } = planLeave(demo, 'p-2105', {});
    expect(errors).toEqual([]);
    const after = withChanges(demo, new Map(changed.map((c) => [c.before.id, c])));
    expect(after.numbers.find((n) => n.e164 === '+441632960105')!.belongsTo).toBeNull();
    expect(after.extensions.some((e) => e.id === 'e-2105') || after.mailboxes.some((m) => m.id === 'm-2105')).toBe(
      false,
    );
  });

  it('handing over keeps extension, number and mailbox; keeping virtual frees the licence', () => {
    const handed = planLeave(demo, 'p-2105', {
      'extension e-2105': { do: 'hand over', to: 'p-2106' },
      'mailbox m-2105': { do: 'hand over', to: 'p-2106' },
    });
    expect(handed.errors).toEqual([]);
    expect(handed.changed.map((c) => [c.kind, c.after === null])).toEqual([
      ['person', true],
      ['extension', false],
      ['mailbox', false],
    ]);
    const kept = planLeave(demo, 'p-2105', { 'extension e-2105': { do: 'keep virtual' } });
    expect(kept.changed.find((c) => c.kind === 'extension')!.after).toMatchObject({
      kind: 'virtual',
      person: null,
      sipPassword: null,
      mailbox: null,
    });
  });

  it('refuses to hand over to nobody, to the leaver, or to what goes too', () => {
    for (const to of ['', 'p-2105', 'p-nobody'])
      expect(planLeave(demo, 'p-2105', { 'extension e-2105': { do: 'hand over', to } }).errors).toHaveLength(1);
    expect(
      planLeave(demo, 'p-2105', { 'number n-441632960105 belongsTo': { do: 'replace', by: 'm-2105' } }).errors,
    ).toMatchObject([{ key: 'number n-441632960105 belongsTo' }]);
  });
});

describe('somebody moves', () => {
  it('is offered digits and numbers of the new site and told what is otherwise there', () => {
    const offer = proposeMove(demo, 'p-2105', 'freight-hamburg')!;
    expect(offer.digits[0]!.free[0]).toMatch(/^40[0-9]{2}$/);
    expect(offer.numbers).toEqual([{ id: 'n-441632960105', shown: '+44 1632 960105' }]);
    expect(offer.freeNumbers.length).toBeGreaterThan(0);
    expect(offer.differs.join(' ')).toMatch(/Europe\/Berlin, were in Europe\/London.*112, 110/);
    expect(proposeMove(demo, 'p-2105', 'nowhere')).toBeNull();
  });

  it('takes digits, number and mailbox along, and the plan stays whole', () => {
    const offer = proposeMove(demo, 'p-2105', 'vastra-kajen')!;
    const planned = planMove(demo, 'p-2105', {
      site: 'vastra-kajen',
      digits: { 'e-2105': offer.digits[0]!.free[0]! },
      number: { take: offer.freeNumbers[0]!.id },
    });
    if (!planned.ok) throw new Error(planned.sentence);
    const after = withChanges(demo, new Map(planned.changed.map((c) => [c.before.id, c])));
    expect(integrityErrors(after)).toEqual([]);
    expect(after.mailboxes.find((m) => m.id === 'm-2105')!.site).toBe('vastra-kajen');
    expect(after.numbers.filter((n) => n.belongsTo === 'e-2105').map((n) => n.site)).toEqual(['vastra-kajen']);
  });

  it('refuses digits that somebody has and numbers that are not free', () => {
    const wish = { site: 'vastra-kajen', digits: { 'e-2105': '3001' }, number: 'keep' as const };
    expect(planMove(demo, 'p-2105', wish)).toMatchObject({ ok: false, path: 'digits.e-2105' });
    expect(planMove(demo, 'p-2105', { ...wish, digits: {}, number: { take: 'n-46313900601' } })).toMatchObject({
      ok: false,
      path: 'number',
    });
  });
});

describe('one person as another', () => {
  it('is the same afterwards in every part, in any pair', () => {
    const plan = endsPlan();
    fc.assert(
      fc.property(fc.nat(), fc.nat(), (a, b) => {
        const [mine, theirs] = [plan.people[a % plan.people.length]!, plan.people[b % plan.people.length]!];
        if (mine.id === theirs.id) return;
        let made = 0;
        const changes = planSameAs(plan, mine.id, theirs.id, SAME_PARTS, () => `copy-${made++}`);
        const after = applied(plan, changes as never);
        expect(integrityErrors(after)).toEqual([]);
        const lines = comparePeople(after, mine.id, theirs.id)!;
        const both = [mine, theirs].every((p) => plan.extensions.some((e) => e.person === p.id));
        const skipped = both ? ['mailbox'] : ['class', 'outgoing', 'ringing', 'reachPlan', 'mailbox', 'presence'];
        const steps = (text: string) => text.split(':')[0];
        const differ = lines.filter((l) => !l.same && !skipped.includes(l.part));
        // Whose phone a step rings is said from the view of each of the two.
        expect(differ.filter((l) => l.part !== 'reachPlan' || steps(l.mine) !== steps(l.theirs))).toEqual([]);
      }),
      { numRuns: 100 },
    );
  });

  it('copies a reach plan with the own phone in place of theirs', () => {
    const plan = endsPlan();
    const joan = plan.extensions.find((e) => e.reachPlan !== null)!;
    const other = plan.extensions.find((e) => e.person !== null && e.person !== joan.person)!;
    let made = 0;
    const after = applied(
      plan,
      planSameAs(plan, other.person!, joan.person!, ['reachPlan'], () => `copy-${made++}`) as never,
    );
    const copied = after.extensions.find((e) => e.id === other.id)!.reachPlan!;
    expect(copied).toMatch(/^copy-/);
    const steps = objectsOf(after, 'reachStep').filter((s) => s.reachPlan === copied);
    expect(steps.length).toBe(plan.reachSteps.filter((s) => s.reachPlan === joan.reachPlan).length);
    expect(steps.some((s) => s.extension === joan.id)).toBe(false);
  });

  it('rights stand side by side, kind by kind', () => {
    const lines = compareRights(demo, 'p-2104', 'p-2102');
    expect(lines.find((l) => l.what === 'premium')).toEqual({
      what: 'premium',
      mine: 'with PIN',
      theirs: 'no',
      same: false,
    });
    expect(lines.find((l) => l.what === 'internal')!.same).toBe(true);
  });
});
