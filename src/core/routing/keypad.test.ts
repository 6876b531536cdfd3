import { describe, expect, it } from '@jest/globals';
import { compile, trace, type Call, type Situation } from '.';
import { endsPlan } from '../../../tests/support/ends-plan';
import { evaluate } from '../../../tests/support/evaluator/evaluate';

/* Every sequence of up to three keys, at two paces, against an evaluator of another make: an attendant with all acts and two levels. */

const KEYS = [...'0123456789*#'];
const AT = Date.parse('2026-12-04T10:00:00Z');

const plan = endsPlan((d) => {
  const key = (id: string, attendant: string, k: string, more: object) => ({
    id,
    attendant,
    mode: 'open',
    key: k,
    ...more,
  });
  Object.assign((d.attendants as object[])[0]!, {
    directDialling: 'site',
    directMap: '21xx',
    dialByName: true,
    tries: 2,
  });
  (d.attendants as object[]).push({
    id: 'second',
    name: 'second',
    site: 'quay',
    greetingOpen: 'night',
    above: 'menu',
    language: 'sv',
  });
  d.attendantKeys = [
    key('k-1', 'menu', '1', { leadsTo: 'desk', silent: false }),
    key('k-2', 'menu', '2', { leadsTo: 'second' }),
    key('k-3', 'menu', '3', { leadsTo: 'menu' }),
    key('k-5', 'menu', '5', { does: 'repeat' }),
    key('k-7', 'menu', '7', { does: 'ask extension' }),
    key('k-s', 'menu', '*', { does: 'ask name' }),
    key('k-0', 'menu', '0', { does: 'end' }),
    key('k-none', 'menu', 'no key', { leadsTo: 'box' }),
    key('k-many', 'menu', 'too many tries', { does: 'end' }),
    key('k-21', 'second', '1', { leadsTo: 'line' }),
    key('k-2s', 'second', '*', { does: 'back' }),
    key('k-2w', 'second', 'wrong key', { leadsTo: 'beep' }),
  ];
});
const exchange = compile(plan);
const call: Call = { from: { type: 'outside', calling: '+447700900999' }, dial: '+441632960111', enBloc: true, at: AT };

const tidy = (list: { afterSeconds: number; id: string | null }[]) =>
  list.map((t) => [Math.round(t.afterSeconds * 1000), t.id]);

describe('keys against brute force', () => {
  it.each([
    ['one after the other', 1],
    ['slower than the pause', 4],
  ])('every sequence of up to three, %s', (_, pace) => {
    const wrong: string[] = [];
    const sequences = [
      '',
      ...KEYS,
      ...KEYS.flatMap((a) => KEYS.map((b) => a + b)),
      ...KEYS.flatMap((a) => KEYS.flatMap((b) => KEYS.map((c) => a + b + c))),
    ];
    for (const sequence of sequences) {
      const situation: Situation = { keys: [...sequence].map((key, i) => ({ key, atSeconds: 2 + i * pace })) };
      const ours = trace(exchange, call, situation);
      const theirs = evaluate(plan, call, situation);
      const mine = JSON.stringify([
        ours.outcome,
        ours.lands?.id ?? null,
        tidy(ours.then.map((t) => ({ afterSeconds: t.afterSeconds, id: t.lands.id }))),
      ]);
      const other = JSON.stringify([theirs.outcome, theirs.lands?.id ?? null, tidy(theirs.then)]);
      if (mine !== other) wrong.push(`${sequence}: ${mine} instead of ${other}`);
    }
    expect(wrong.slice(0, 5)).toEqual([]);
    expect(sequences.length).toBe(1 + 12 + 144 + 1728);
  });
});
