import { describe, expect, it } from '@jest/globals';
import { generate } from '../../../demo/generate';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { Chance } from '../../../tests/support/evaluator/random';
import { differences, readPlan, type Plan } from '../plan';
import { compile, type Call } from '../routing';
import { changedCells } from '.';

/* A draft in which many phones are edited, most of them in nothing that decides how they call: held against an evaluator of another make. */

const AT = Date.parse('2026-12-07T10:00:00Z');
const SPAN = { from: AT, to: AT + 86_400_000 };
const SEED = Number(process.env.POLYDROME_TEST_SEED ?? 20261129);
const CALLS = 400;
const SMALL = { sites: 3, rungs: 8, numbers: 80, maps: 60, hours: 12, attendants: 9, queues: 9 };

const read = (document: object): Plan => {
  const found = readPlan(document);
  if (!found.ok) throw new Error(found.errors[0]!.sentence);
  return found.plan;
};

/** Where a call ends, what follows and what is shown, by the other evaluator. */
function endsAs(plan: Plan, call: Call): string {
  const { outcome, lands, cause, then, trunk, digitsSent, shownNumber, secondsWaited } = evaluate(plan, call, {});
  const after = then.map((t) => [t.afterSeconds, t.kind, t.id]);
  return JSON.stringify([outcome, lands, cause, after, digitsSent && trunk, digitsSent, shownNumber, secondsWaited]);
}

describe('impact of many edits of phones', () => {
  it('names who calls otherwise and whom calls reach otherwise, and nobody else', () => {
    const chance = new Chance(SEED);
    const document = JSON.parse(JSON.stringify(generate({ ...SMALL, extensions: 160 }))) as {
      extensions: { id: string; ringSeconds?: number }[];
      numbers: { id: string }[];
    };
    const before = read(document);
    const edited = document.extensions.map((e, i) => {
      if (i % 2 === 0) return e;
      const receiving = { ...e, ringSeconds: 61 + (i % 3), callWaiting: i % 4 === 1 };
      return i % 20 === 1 ? { ...receiving, withholdNumber: true } : receiving;
    });
    const after = read({ ...document, extensions: edited });
    const edits = differences(before, after);
    expect(edits.length).toBeGreaterThan(60);
    const cells = changedCells({ was: compile(before), willBe: compile(after), situation: {}, span: SPAN }, edits);
    const plain = cells.filter((c) => c.acts.length === 0 && c.call.from.type === 'extension');
    let [changed, same] = [0, 0];
    for (let n = 0; n < CALLS; n++) {
      const phone = chance.one(before.extensions);
      const dial = chance.is(0.5) ? chance.one(before.extensions).digits : chance.one(['901632960150', '999', '9112']);
      if (dial === phone.digits) continue;
      const call: Call = { from: { type: 'extension', id: phone.id }, dial, enBloc: false, at: AT };
      const differ = endsAs(before, call) !== endsAs(after, call);
      const told = plain.some((c) => c.callers.some((g) => g.includes(phone.id)) && c.has(dial));
      if (differ !== told) expect({ seed: SEED, phone: phone.id, dial, differ, told }).toBeNull();
      if (differ) changed += 1;
      else same += 1;
    }
    expect(Math.min(changed, same)).toBeGreaterThan(CALLS / 10);
  });
});
