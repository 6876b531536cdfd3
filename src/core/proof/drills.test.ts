import { describe, expect, it } from '@jest/globals';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { Chance, MOMENTS, randomPlan } from '../../../tests/support/evaluator/random';
import { readPlan, type Plan } from '../plan';
import { compile, type Call, type Situation } from '../routing';
import { drillOf, drillsOf, type Drill } from './drills';

/*
 * Drills on random plans, against an evaluator of another make: what is said to change does, what changes is said to, and an
 * emergency call leaves exactly where it says so.
 */

const PLANS = 2 * Number(process.env.POLYDROME_SOAK ?? 1);
const SEED = Number(process.env.POLYDROME_TEST_SEED ?? 20261128);

const endIn = (plan: Plan, call: Call, situation: Situation) => {
  const { outcome, lands, trunk, digitsSent, cause } = evaluate(plan, call, situation);
  return JSON.stringify([outcome, lands?.kind, lands?.id, digitsSent === null ? null : trunk, cause]);
};

/** What is out of order, as the other evaluator takes it. */
function brokenBy(plan: Plan, { kind, out }: Drill): Situation {
  const at = (list: readonly { id: string; site: string }[]) => list.flatMap((o) => (out.includes(o.site) ? o.id : []));
  const links = out.map((id) => ({ id, kbitPerSecond: 1e9 }));
  if (kind === 'link') return { links };
  const trunks = (kind === 'site' ? at(plan.trunks) : out).map((id) => ({ id, up: false }));
  return kind === 'site' ? { trunks, off: at(plan.extensions), links } : { trunks };
}

describe('drills', () => {
  it('of links and sites tell whose calls change', () => {
    let [changed, links] = [0, 0];
    for (let i = 0; i < PLANS; i++) {
      const chance = new Chance(SEED + i);
      const bare = randomPlan(chance);
      const sites = bare.sites.map((s, n) => (n === 0 ? { ...s, linkKbitPerSecond: 150 } : s));
      const read = readPlan({ ...JSON.parse(JSON.stringify(bare)), sites });
      if (!read.ok) continue;
      const { plan } = read;
      const exchange = compile(plan);
      const at = chance.one(MOMENTS);
      for (const drill of drillsOf(exchange).filter(
        (d) => d.kind === 'link' || (d.kind === 'site' && chance.is(0.3)),
      )) {
        const then = brokenBy(plan, drill);
        const { groups } = drillOf({ exchange, situation: {}, span: { from: at, to: at + 86_400_000 } }, drill);
        const asked = plan.extensions.filter((e) => e.kind !== 'virtual' && !then.off?.includes(e.id));
        for (let n = 0; n < 40 && asked.length > 0; n++) {
          const phone = chance.one(asked);
          const dial = chance.one(plan.extensions).digits;
          const call: Call = { from: { type: 'extension', id: phone.id }, dial, enBloc: false, at };
          if (endIn(plan, call, {}) === endIn(plan, call, then)) continue;
          changed += 1;
          links += drill.kind === 'link' ? 1 : 0;
          if (!groups.some((g) => g.phones > 0 && g.sites.includes(phone.site)))
            expect({ seed: SEED + i, drill, call, groups: groups.map((g) => [g.sites, g.phones]) }).toBeNull();
        }
      }
    }
    expect(Math.min(changed, links)).toBeGreaterThan(0);
  });

  it(`of trunks tell what changes and which emergency calls leave, on ${PLANS} random plans`, () => {
    let [groups, changed, stuck] = [0, 0, 0];
    for (let i = 0; i < PLANS; i++) {
      const chance = new Chance(SEED + i);
      const plan = randomPlan(chance);
      if (new Set(plan.extensions.map((e) => e.digits)).size < plan.extensions.length) continue;
      const exchange = compile(plan);
      const at = chance.one(MOMENTS);
      const span = { from: at, to: at + 2 * 86_400_000 };
      const drills = drillsOf(exchange).filter((d) => d.kind === 'trunk' || d.kind === 'pair of trunks');
      expect(drills.filter((d) => d.kind === 'trunk').length).toBe(plan.trunks.filter((t) => t.enabled).length);
      for (const drill of drills.slice(0, 4)) {
        const then: Situation = { trunks: drill.out.map((id) => ({ id, up: false })) };
        const result = drillOf({ exchange, situation: {}, span }, drill);
        groups += result.groups.length;
        for (const e of result.emergency) {
          const phone = plan.extensions.find((x) => x.site === e.site && x.kind !== 'virtual')!;
          const call: Call = { from: { type: 'extension', id: phone.id }, dial: e.number, enBloc: false, at };
          const end = evaluate(plan, call, then);
          expect([e.site, e.number, e.leaves]).toEqual([
            e.site,
            e.number,
            end.outcome === 'routed' && end.trunk !== null,
          ]);
          stuck += e.leaves ? 0 : 1;
        }
        for (let n = 0; n < 40; n++) {
          const phone = chance.one(plan.extensions.filter((e) => e.kind !== 'virtual'));
          const dial = chance.one(['907700900123', '9004670174060', '0701740605', '112', '999', '90070', phone.digits]);
          const call: Call = { from: { type: 'extension', id: phone.id }, dial, enBloc: false, at };
          if (endIn(plan, call, {}) === endIn(plan, call, then)) continue;
          changed += 1;
          if (!result.groups.some((g) => g.phones > 0)) expect({ seed: SEED + i, drill, call }).toBeNull();
        }
        for (const g of result.groups.filter((x) => x.aspects.includes('end') && x.example.call.from.match(/^\d/))) {
          const { call } = g.example;
          const phone = plan.extensions.find((e) => e.digits === call.from)!;
          const asked: Call = {
            from: { type: 'extension', id: phone.id },
            dial: call.dial,
            enBloc: false,
            at: Date.parse(call.at),
          };
          const { trunks = [], ...more } = call.situation ?? {};
          const [one, other] = [
            endIn(plan, asked, { ...more, trunks }),
            endIn(plan, asked, { ...more, trunks: [...then.trunks!, ...trunks] }),
          ];
          if (one === other) expect({ seed: SEED + i, drill, call, one }).toBeNull();
        }
      }
    }
    expect(Math.min(groups, changed, stuck)).toBeGreaterThan(0);
  });
});
