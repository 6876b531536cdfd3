import { describe, expect, it } from '@jest/globals';
import { endsPlan } from '../../../tests/support/ends-plan';
import type { Plan } from '../plan';
import { activeSince, compile, trace, type Call, type Situation } from '.';

/* Numbers that become active on a day, mailboxes that are off, and presence rules of one's own. */

const NIGHT = Date.UTC(2026, 11, 1);
const plan = (change: (d: Plan) => void) => compile(endsPlan((d) => change(d as unknown as Plan)));

function outside(number: string, at: number, exchange: ReturnType<typeof compile>, situation: Situation = {}) {
  const call: Call = { from: { type: 'outside', calling: '+46846500417' }, dial: number, enBloc: true, at };
  return trace(exchange, call, situation);
}
function inside(digits: string, exchange: ReturnType<typeof compile>, situation: Situation = {}) {
  return trace(exchange, { from: { type: 'extension', id: 'e1' }, dial: digits, enBloc: false, at: NIGHT }, situation);
}

describe('a number with a day', () => {
  const dated = (state: string, activeFrom: string | null, zone: string) =>
    plan((d) => {
      Object.assign(
        d.numbers.find((n) => n.id === 'n111')!,
        { state, activeFrom, belongsTo: 'e1' },
      );
      d.numbers.find((n) => n.id === 'n101')!.belongsTo = null;
      Object.assign(
        d.sites.find((s) => s.id === 'quay')!,
        { zone },
      );
    });

  it.each([
    ['Europe/London', Date.UTC(2026, 11, 1)],
    ['Europe/Stockholm', Date.UTC(2026, 10, 30, 23)],
    ['America/St_Johns', Date.UTC(2026, 11, 1, 3, 30)],
    ['Pacific/Auckland', Date.UTC(2026, 10, 30, 11)],
  ])('takes calls from midnight of %s on', (zone, midnight) => {
    const x = dated('active', '2026-12-01', zone);
    expect(outside('+441632960111', midnight - 1, x).lands).toBeNull();
    expect(
      outside('+441632960111', midnight - 1, x)
        .steps.map((s) => s.sentence)
        .join(' '),
    ).toContain('active from 2026-12-01 only');
    expect(outside('+441632960111', midnight, x).lands?.id).toBe('e1');
  });

  it('is not shown before its day', () => {
    const x = dated('active', '2026-12-01', 'Europe/London');
    const shown = (at: number) =>
      trace(x, { from: { type: 'extension', id: 'e1' }, dial: '901632960150', enBloc: false, at }).shownNumber;
    expect(shown(NIGHT - 1)).not.toBe('+441632960111');
    expect(shown(NIGHT)).toBe('+441632960111');
  });

  it.each(['reserved', 'porting-in', 'retired'])('that is %s takes none, whatever its day', (state) => {
    const x = dated(state, '2020-01-01', 'Europe/London');
    expect(outside('+441632960111', NIGHT, x).lands).toBeNull();
    expect(activeSince(x.numbers.get('n111')!, x.sites.get('quay')!)).toBe(Infinity);
  });

  it('without a day always did', () => {
    const x = dated('active', null, 'Europe/London');
    expect(activeSince(x.numbers.get('n111')!, x.sites.get('quay')!)).toBe(-Infinity);
  });
});

describe('a mailbox that is off', () => {
  it('is as if it were not there', () => {
    const x = plan((d) =>
      Object.assign(
        d.mailboxes.find((m) => m.id === 'box')!,
        { on: false },
      ),
    );
    const away = inside('2203', x, { presence: { 'x-yuki': 'away' } });
    expect([away.lands, away.cause]).toEqual([null, { q850: 17, sip: 486 }]);
    const unanswered = inside('2203', x);
    expect(unanswered.lands?.id).toBe('x-yuki');
    expect(unanswered.then.map((t) => t.lands.kind)).toEqual(['tone']);
  });
});

describe('a presence rule of one’s own', () => {
  const choice = { id: 'own', extension: 'x-yuki', rule: 'p-meeting', internal: 'ring', outside: 'busy' };
  const x = plan((d) => {
    (d as unknown as Record<string, unknown>).presenceChoices = [choice];
    Object.assign(
      d.numbers.find((n) => n.id === 'n111')!,
      { belongsTo: 'x-yuki' },
    );
  });
  const meeting: Situation = { presence: { yuki: 'meeting' } };

  it('comes before the organisation’s, for inside and outside callers apart', () => {
    expect(inside('2203', x, meeting).lands?.id).toBe('x-yuki');
    expect(outside('+441632960111', NIGHT, x, meeting).cause).toEqual({ q850: 17, sip: 486 });
  });

  it('holds for its own state and extension only', () => {
    expect(inside('2203', x, { presence: { yuki: 'away' } }).lands?.kind).toBe('mailbox');
    const plain = plan(() => {});
    expect(inside('2203', plain, meeting).cause).toEqual({ q850: 17, sip: 486 });
  });
});
