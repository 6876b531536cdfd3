import { describe, expect, it } from '@jest/globals';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { differences, planWith, readPlan, type Changed, type Plan } from '../plan';
import { compile, type Call, type Situation } from '../routing';
import { changedCells, impactOf } from '.';

/*
 * A phone that only callers come to who are turned away, or whom a notice leads there: its edit changes calls to numbers that name
 * nothing of it, and calls to digits that are no number of ours. What changes is told by an evaluator of another make.
 */

const FROM = Date.UTC(2026, 10, 23, 10);
const SPAN = { from: FROM, to: FROM + 86_400_000 };
const BLOCKED = '+447700900123';

function planOf(organisation: object, site: object, first: object = {}): Plan {
  const phone = (id: string, digits: string, at = 'here') => ({
    id,
    digits,
    name: id,
    kind: 'place',
    site: at,
    class: 'all',
  });
  const number = (id: string, e164: string, belongsTo: string | null, trunk: string) => ({
    id,
    e164,
    site: trunk === 'near' ? 'here' : 'there',
    trunk,
    belongsTo,
  });
  const trunk = (id: string, at: string) => ({
    id,
    name: id,
    kind: 'sip-peer',
    site: at,
    channels: 4,
    ownNumber: 'n1',
  });
  const zone = { country: 'GB', zone: 'Europe/London', ladder: 'out', mainNumber: 'n1' };
  const read = readPlan({
    format: 'polydrome-plan',
    version: 1,
    organisation: { name: 'Tiny', ...organisation },
    classes: [{ id: 'all', name: 'All', rights: { internal: { allow: true } } }],
    sites: [
      { id: 'here', name: 'Here', ...zone, ...site },
      { id: 'there', name: 'There', ...zone },
    ],
    trunks: [trunk('near', 'here'), trunk('far', 'there')],
    ladders: [{ id: 'out', name: 'Out' }],
    hours: [{ id: 'h', name: 'H', zone: 'Europe/London', weekly: 'mon-sun 0-24' }],
    extensions: [{ ...phone('p1', '201'), ...first }, phone('p2', '202', 'there'), phone('last', '209')],
    inboundRoutes: [{ id: 'r', name: 'R', position: 1, numbers: ['n3'], leadsTo: 'p2' }],
    routeRules: [{ id: 'rr', route: 'r', position: 1, hours: 'h', leadsTo: 'p1' }],
    numbers: [
      number('n1', '+441632960101', 'p1', 'near'),
      number('n2', '+441632960102', 'p2', 'far'),
      number('n3', '+441632960103', null, 'near'),
    ],
    numberAdditions: [{ id: 'fiction', from: '+441632960000', to: '+441632960999', country: 'GB', kind: 'national' }],
  });
  if (!read.ok) throw new Error(read.errors.map((e) => e.sentence).join('\n'));
  return read.plan;
}

const CALLS: Call[] = [BLOCKED, null].flatMap((calling) => [
  ...['+441632960101', '+441632960102', '+441632960103'].map((dial): Call => ({
    from: { type: 'outside', calling },
    dial,
    enBloc: true,
    at: FROM,
  })),
  ...['near', 'far'].map((id): Call => ({
    from: { type: 'trunk', id, calling },
    dial: '01632960555',
    enBloc: true,
    at: FROM,
  })),
]);

const keyOf = ({ from, dial }: Call): string =>
  from.type === 'trunk'
    ? `${from.calling} by ${from.id}`
    : `${(from as { calling: string | null }).calling} to ${dial}`;

/** Whether two callers come to the same, by the other evaluator: of callers whom nothing tells apart the cells name one. */
const goesAs = (plan: Plan, one: Call, other: Call, situation: Situation) =>
  JSON.stringify(evaluate(plan, one, situation)) === JSON.stringify(evaluate(plan, other, situation));

/** Of the calls above those that a longer ring of the last phone changes: by the other evaluator, and by the cells. */
function changed(plan: Plan, situation: Situation): [string[], string[]] {
  const last = plan.extensions.find((e) => e.id === 'last')!;
  const after = planWith(plan, [{ kind: 'extension', id: 'last', value: { ...last, ringSeconds: 55 } } as Changed]);
  const comparing = { was: compile(plan), willBe: compile(after), situation, span: SPAN };
  const cells = changedCells(comparing, differences(plan, after));
  const ofOthers = CALLS.filter(
    (call) => JSON.stringify(evaluate(plan, call, situation)) !== JSON.stringify(evaluate(after, call, situation)),
  );
  const ofCells = CALLS.filter((call) =>
    cells.some(
      ({ acts, call: { from, dial }, stretches }) =>
        acts.length === 0 &&
        from.type === call.from.type &&
        goesAs(plan, call, { ...call, from }, situation) &&
        (from.type === 'trunk' ? from.id === (call.from as { id: string }).id : dial === call.dial) &&
        stretches.some((s) => s.from <= FROM && FROM < s.to),
    ),
  );
  return [ofOthers.map(keyOf), ofCells.map(keyOf)];
}

const map = '+447700900x{3}';
const notice = (at: object) => ({
  notices: [{ id: 'n', from: new Date(FROM - 1000).toISOString(), open: false, leadsTo: 'last', ...at }],
});

describe('an edit of what only callers come to who are turned away, or led there by a notice', () => {
  it.each<[string, object, object, Situation, number]>([
    ['the organisation blocks', { blockedCallers: map, blockedLeadTo: 'last' }, {}, {}, 5],
    ['a site blocks', {}, { blockedCallers: map, blockedLeadTo: 'last' }, {}, 3],
    ['the organisation rejects who hides the number', { rejectsWithheld: true, withheldLeadTo: 'last' }, {}, {}, 5],
    [
      'somebody is blocked now, for all',
      { blockedLeadTo: 'last' },
      {},
      { blocked: [{ site: null, calling: BLOCKED }] },
      5,
    ],
    [
      'somebody is blocked now, and led there',
      {},
      {},
      { blocked: [{ site: null, calling: null, leadsTo: 'last' }] },
      5,
    ],
    [
      'somebody is blocked now at a site',
      {},
      {},
      { blocked: [{ site: 'there', calling: BLOCKED, leadsTo: 'last' }] },
      2,
    ],
    ['a notice holds at a number', {}, {}, notice({ of: 'n1' }), 2],
    ['a notice holds at a route', {}, {}, notice({ of: 'r' }), 2],
    ['a notice holds at hours', {}, {}, notice({ hours: 'h' }), 2],
  ])('changes their calls where %s', (_, organisation, site, situation, count) => {
    const [theirs, ours] = changed(planOf(organisation, site), situation);
    expect(ours).toEqual(theirs);
    expect(theirs).toHaveLength(count);
  });

  it('changes calls of who hides the number where a phone rejects them', () => {
    const [theirs, ours] = changed(planOf({ withheldLeadTo: 'last' }, {}, { rejectsWithheld: true }), {});
    expect(ours).toEqual(theirs);
    expect(theirs).toEqual(['null to +441632960101', 'null to +441632960103']);
  });

  it('is told where it goes together with what led there', () => {
    const plan = planOf({ rejectsWithheld: true, withheldLeadTo: 'last' }, {});
    const after = planWith(plan, [
      { kind: 'extension', id: 'last', value: null },
      { kind: 'organisation', id: 'organisation', value: { ...plan.organisation, withheldLeadTo: null } },
    ] as Changed[]);
    const comparing = { was: compile(plan), willBe: compile(after), situation: {}, span: SPAN };
    const groups = impactOf(comparing, differences(plan, after));
    const turnedAway = groups.find((g) => g.example.call.from === 'withheld')!;
    expect([turnedAway.was?.lands?.id, turnedAway.willBe?.outcome]).toEqual(['last', 'refused']);
    expect(turnedAway.edits.map((e) => e.kind)).toContain('organisation');
  });

  it('changes nothing where nobody is blocked', () => {
    expect(changed(planOf({ blockedLeadTo: 'last', withheldLeadTo: 'last' }, {}), {})).toEqual([[], []]);
  });
});
