import { describe, expect, it } from '@jest/globals';
import { evaluate } from '../../../tests/support/evaluator/evaluate';
import { phoneGroups } from '../cells';
import { differences, planWith, readPlan } from '../plan';
import { compile, type Call } from '../routing';
import { changedCells } from '.';

/* Phones that only a code or a mailbox tells apart dial outside alike: asked once for all, and told of each. */

const AT = Date.UTC(2026, 10, 23, 10);
const DAY = 86_400_000;
const phone = (id: string, digits: string, more: object = {}) => ({
  ...{ id, digits, name: id, kind: 'place', site: 'here', class: 'all', ...more },
});
const read = readPlan({
  format: 'polydrome-plan',
  version: 1,
  organisation: { name: 'Tiny' },
  classes: [{ id: 'all', name: 'All', rights: { internal: { allow: true }, mobile: { allow: true } } }],
  sites: [{ id: 'here', name: 'Here', country: 'GB', zone: 'Europe/London', mainNumber: 'n1', ladder: 'out' }],
  ladders: [{ id: 'out', name: 'Out' }],
  rungs: [{ id: 'r1', ladder: 'out', position: 1, name: 'Mobiles', map: '07x{9}', trunks: ['one', 'two'] }],
  trunks: ['one', 'two'].map((id) => ({ id, name: id, kind: 'sip-peer', site: 'here', channels: 4, ownNumber: 'n1' })),
  mailboxes: [{ id: 'box', name: 'Box', site: 'here' }],
  extensions: [
    phone('p1', '201'),
    phone('p2', '202', { mailbox: 'box' }),
    phone('p3', '203', { withholdNumber: true }),
    phone('p4', '204', { mailbox: 'box' }),
  ],
  numberAdditions: [{ id: 'fiction', from: '+447700900000', to: '+447700900999', country: 'GB', kind: 'mobile' }],
  numbers: [{ id: 'n1', e164: '+441632960100', site: 'here', trunk: 'one' }],
});
if (!read.ok) throw new Error(read.errors.map((e) => e.sentence).join('\n'));
const { plan } = read;

describe('the impact on calls to outside', () => {
  it('names every phone, whatever codes and mailboxes it has', () => {
    const off = { ...plan.trunks.find((t) => t.id === 'one')!, enabled: false };
    const after = planWith(plan, [{ kind: 'trunk', id: 'one', value: off }]);
    const [was, willBe] = [compile(plan), compile(after)];
    expect(phoneGroups([was]).length).toBe(3);
    const comparing = { was, willBe, situation: {}, span: { from: AT, to: AT + DAY } };
    const cells = changedCells(comparing, differences(plan, after)).filter((c) => c.call.from.type === 'extension');
    for (const { id } of plan.extensions) {
      const call: Call = { from: { type: 'extension', id }, dial: '07700900123', enBloc: false, at: AT };
      const [before, now] = [plan, after].map((p) => evaluate(p, call, {}));
      expect([id, before!.trunk, now!.trunk]).toEqual([id, 'one', 'two']);
      const told = cells.filter((c) => c.has(call.dial) && c.callers.some((group) => group.includes(id)));
      expect([id, told.map((c) => [c.was?.trunk, c.willBe?.trunk])]).toEqual([id, [['one', 'two']]]);
    }
    // Those that hide their number are told beside the others, who are told together.
    const callers = cells.filter((c) => c.has('07700900123')).map((c) => c.callers.map((g) => [...g].sort()).sort());
    expect(callers.sort()).toEqual([[['p1'], ['p2', 'p4']], [['p3']]]);
  });
});
