import { describe, expect, it } from '@jest/globals';
import { endsPlan } from '../../../tests/support/ends-plan';
import { compile } from '../routing';
import { emergencyCallsLost, gateOf, problemsOf, type Problem } from '.';

type Change = NonNullable<Parameters<typeof endsPlan>[0]>;
const NOW = Date.parse('2026-11-26T12:00:00Z');
const all = (change?: Change): Problem[] => {
  const exchange = compile(endsPlan(change));
  return [...emergencyCallsLost(exchange, NOW), ...problemsOf(exchange, NOW)];
};
const site =
  (values: object): Change =>
  (d) =>
    Object.assign(
      (d.sites as { id: string }[]).find((s) => s.id === 'quay')!,
      values,
    );
const trunksOff: Change = (d) => {
  for (const t of d.trunks as { enabled?: boolean }[]) t.enabled = false;
};

describe('what stands before going live', () => {
  it('lets through what has no new error', () => {
    expect(gateOf(all(), all())).toMatchObject({ emergency: [], errors: [] });
  });

  it('nobody lets an emergency call through that would not get out', () => {
    const gate = gateOf(all(site({ emergencyTrunks: [] })), all());
    expect(gate.emergency.map((p) => p.type)).toEqual(
      expect.arrayContaining(['emergency-not-out', 'emergency-list-empty']),
    );
    // Dialled, and not only read from a list: every trunk is switched off, and the lists are full.
    const dead = gateOf(all(trunksOff), all());
    expect(dead.emergency.map((p) => p.type)).toContain('emergency-not-out');
    expect(dead.emergency[0]!.sentence).toMatch(/dialled at .* does not get out: ./);
  });

  it('holds what is live already against nobody', () => {
    const broken = all(site({ emergencyTrunks: [] }));
    const gate = gateOf(broken, broken);
    expect(gate.emergency).toEqual([]);
    expect(gate.standing.map((p) => p.type)).toContain('emergency-not-out');
    // Nothing was ever live: everything is new.
    expect(gateOf(broken, []).emergency.length).toBeGreaterThan(0);
  });
});
