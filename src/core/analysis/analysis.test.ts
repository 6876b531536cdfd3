import { describe, expect, it } from '@jest/globals';
import { lanternfold } from '../../../demo/lanternfold';
import { courseOf } from '../course';
import { readPlan, type Plan } from '../plan';
import { compile, reachableForms, trace } from '../routing';
import { smallPlan } from '../../../tests/support/small-plan';
import { consequencesOf, fromOutside, problemsOf, proposedPosition, reachOfRungs } from '.';

const AT = Date.UTC(2026, 10, 23, 9);

function demo(change: (plan: Plan) => void = () => {}) {
  const read = readPlan(lanternfold());
  if (!read.ok) throw new Error('demo');
  const plan = structuredClone(read.plan);
  change(plan);
  return compile(plan);
}

describe('problems', () => {
  const found = (exchange: ReturnType<typeof demo>) =>
    problemsOf(exchange).map((p) => `${p.severity} ${p.type} ${p.object.id}`);

  it('finds what was planted in the demo company, and no error', () => {
    expect(found(demo())).toEqual([
      'note emergency-nobody-told larkspur',
      'note emergency-nobody-told tidewren',
      'doubt rule-never-fits out-north-quay-8',
      'doubt mailbox-no-owner m-lost-property',
      'note caller-id-of-other-trunk out-north-quay-6',
      'note caller-id-of-other-trunk out-north-quay-7',
      'note caller-id-of-other-trunk out-north-quay-8',
      'note caller-id-of-other-trunk out-tidewren-1',
      'note caller-id-of-other-trunk out-tidewren-2',
      'note caller-id-of-other-trunk out-tidewren-3',
      'note caller-id-of-other-trunk out-vastra-kajen-4',
      'doubt caller-id-not-owned e-5002',
      'note number-no-route n-441632960106',
      'doubt route-never-fits in-hamburg-four',
      'doubt hours-hole bookings-hours',
      'note key-waits main-attendant',
    ]);
  });

  it('finds emergency lists that are empty, foreign or without a callback number', () => {
    const broken = demo((p) => {
      const [hamburg, larkspur] = [
        p.sites.find((s) => s.id === 'freight-hamburg')!,
        p.sites.find((s) => s.id === 'larkspur')!,
      ];
      hamburg.emergencyTrunks = ['kestrel'];
      larkspur.emergencyTrunks = [];
      larkspur.mainNumber = null;
    });
    expect(found(broken)).toEqual(
      expect.arrayContaining([
        'error emergency-list-empty freight-hamburg',
        'error emergency-other-country freight-hamburg',
        'error emergency-list-empty larkspur',
        'error emergency-no-callback larkspur',
      ]),
    );
  });

  it('finds digits that begin with an emergency number, on extensions and in maps (E3)', () => {
    const hidden = demo((p) => {
      p.extensions.find((e) => e.id === 'e-2101')!.digits = '1125';
      p.rungs.find((r) => r.id === 'out-north-quay-2')!.map = '99x{3}';
    });
    const behind = problemsOf(hidden).filter((p) => p.type === 'behind-emergency');
    expect(behind.map((p) => p.object.id)).toEqual(expect.arrayContaining(['e-2101', 'out-north-quay-2']));
    expect(behind.find((p) => p.object.id === 'out-north-quay-2')!.sentence).toContain('99900');
  });

  it('knows which emergency forms dialling can reach', () => {
    expect(reachableForms(demo(), demo().sites.get('north-quay')!)).toEqual(['999', '112', '9112']);
    expect(reachableForms(demo(), demo().sites.get('freight-hamburg')!)).toEqual(['112', '0112', '110', '0110']);
  });
});

describe('reach of a ladder', () => {
  it('counts each rule and finds the covered one, by a single rule or by several together (E1)', () => {
    const rungs = demo().rungsOf.get('out-north-quay')!;
    const reach = reachOfRungs(rungs, demo());
    expect(reach[0]).toEqual({ rung: 'out-north-quay-1', count: '100', coveredBy: null });
    expect(reach.filter((r) => r.coveredBy)).toEqual([
      { rung: 'out-north-quay-8', count: '10000000', coveredBy: ['out-north-quay-6'] },
    ]);
    const split = compile(
      smallPlan((d) => {
        d.rungs = ['1[0-4]', '1[5-9]', '1x'].map((map, i) => ({
          id: `s${i}`,
          ladder: 'out',
          position: i,
          name: `S${i}`,
          map,
          trunks: ['main'],
        }));
      }),
    );
    expect(reachOfRungs(split.rungsOf.get('out')!, split)[2]!.coveredBy).toEqual(['s0', 's1']);
  });

  it('does not let a rule for some cover a rule for all', () => {
    const partial = compile(
      smallPlan((d) => {
        d.rungs = [
          { id: 'a', ladder: 'out', position: 1, name: 'A', map: '1x', forSites: ['pier'], trunks: ['main'] },
          { id: 'b', ladder: 'out', position: 2, name: 'B', map: '1x', trunks: ['main'] },
        ];
      }),
    );
    expect(reachOfRungs(partial.rungsOf.get('out')!, partial).map((r) => r.coveredBy)).toEqual([null, null]);
  });
});

describe('consequences', () => {
  it('of an extension: reached by its number, leads to its mailbox, and nothing changes without an edit', () => {
    const x = demo();
    const c = consequencesOf(x, x, 'extension', 'e-2101', AT, {});
    expect(c.reachedBy.map((l) => l.label)).toEqual(['2101 from any phone', '+44 1632 960101']);
    expect(c.leadsTo.map((l) => `${l.kind} ${l.detail}`)).toEqual(['extension ', 'mailbox no answer, after 25 s']);
    expect(c.changes).toEqual([]);
    expect(c.asked).toBe('every call');
  });

  it('show the calls that an edit moves, and not those it leaves', () => {
    const edited = demo((p) => {
      p.classes.find((c) => c.id === 'lobby')!.rights.local.allow = true;
    });
    const c = consequencesOf(edited, demo(), 'class', 'lobby', AT, {});
    expect(c.changes.length).toBeGreaterThan(0);
    for (const change of c.changes) expect([change.was.outcome, change.willBe.outcome]).toEqual(['refused', 'routed']);
    expect(consequencesOf(edited, demo(), 'class', 'staff', AT, {}).changes).toEqual([]);
  });

  it('a new name changes no call', () => {
    const renamed = demo((p) => {
      p.extensions.find((e) => e.id === 'e-2101')!.name = 'Somebody Else';
    });
    expect(consequencesOf(renamed, demo(), 'extension', 'e-2101', AT, {}).changes).toEqual([]);
  });

  it('can be had for every object of the demo', () => {
    const x = demo();
    for (const [kind, list] of [
      ['site', x.plan.sites],
      ['trunk', x.plan.trunks],
      ['rung', x.plan.rungs],
      ['inboundRoute', x.plan.inboundRoutes],
      ['person', x.plan.people.slice(0, 3)],
      ['mailbox', x.plan.mailboxes.slice(0, 3)],
      ['ladder', x.plan.ladders],
      ['numberAddition', x.plan.numberAdditions],
    ] as const)
      for (const o of list) expect(consequencesOf(x, x, kind, o.id, AT, {}).changes).toEqual([]);
  });
});

describe('the course of a trace', () => {
  const x = demo();
  const course = (call: Parameters<typeof trace>[1], situation = {}) => courseOf(x, call, trace(x, call, situation));

  it('from outside: trunk, route, phone, and the mailbox as a way not walked', () => {
    const c = course(fromOutside('+46313900600', AT).call);
    expect(c.nodes.map((n) => `${n.kind}${n.end ? ' end' : ''}`)).toEqual([
      'caller',
      'trunk',
      'rule',
      'extension end',
      'mailbox end',
    ]);
    expect(c.ways.map((w) => `${w.when}${w.walked ? ' walked' : ''}`)).toEqual([
      'arrives walked',
      'fits walked',
      ' walked',
      'no answer',
    ]);
  });

  it('going out: trunks that were passed over are drawn with their reason', () => {
    const c = course(
      { from: { type: 'extension', id: 'e-2101' }, dial: '901632960150', enBloc: false, at: AT },
      { trunks: [{ id: 'kestrel', up: false }] },
    );
    expect(c.nodes.find((n) => n.kind === 'refused')).toMatchObject({
      label: 'Kestrel Voice',
      detail: 'is down',
      end: true,
    });
    expect(c.nodes.at(-1)).toMatchObject({ kind: 'outside', label: '+44 1632 960150', end: true });
    expect(c.ways.find((w) => w.to === 'not kestrel')!.from).toBe('rung out-north-quay-5');
    expect(c.nodes.find((n) => n.id === 'trunk sundvik')).toMatchObject({ end: false });
  });

  it('refused: the way is broken at the end', () => {
    const c = course({ from: { type: 'extension', id: 'e-2160' }, dial: '901632960150', enBloc: false, at: AT });
    expect(c.nodes.at(-1)).toMatchObject({ kind: 'refused', label: 'refused', detail: 'rejected (cause 21, SIP 403)' });
  });
});

describe('where a new rule is proposed', () => {
  const list = [
    { position: 10, maps: ['+441632960100'] },
    { position: 20, maps: ['+4416329601x{2}', '+448081570100'] },
    { position: 30, maps: ['x{4}'] },
  ];
  it.each([
    [['+441632960150'], 15],
    [['+448081570100'], 15],
    [['+441632960100'], 0],
    [['2x{3}'], 25],
    [['+46x{6,12}'], 40],
    [['+44163296x{4}'], 40],
    [['+4('], 40],
    [[], 40],
  ])('%j stands at %i: above what takes all of it, else at the foot', (maps, position) =>
    expect(proposedPosition(list, maps)).toBe(position),
  );
  it('an empty list begins', () => expect(proposedPosition([], ['1'])).toBe(10));
});
