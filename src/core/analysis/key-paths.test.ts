import { describe, expect, it } from '@jest/globals';
import { lanternfold } from '../../../demo/lanternfold';
import { readPlan } from '../plan';
import { compile, trace } from '../routing';
import { DEEPEST, keyPaths } from '.';

const read = readPlan(structuredClone(lanternfold()));
if (!read.ok) throw new Error('the demo company');
const exchange = compile(read.plan);
const FRIDAY = Date.parse('2026-11-27T10:00:00Z');
const paths = keyPaths(exchange, 'main-attendant', FRIDAY, {});
const row = (keys: string) => paths.find((p) => p.keys.join(' ') === keys);

describe('every path of keys', () => {
  it('names each key, what comes of no key, and the level beneath', () => {
    expect(paths.map((p) => p.keys.join(' ')).sort()).toEqual(
      ['*', '0', '1', '2 *', '2 1', '2 2', '2 no key', '3', '4', '9 no key', 'no key'].sort(),
    );
    expect(row('1')).toMatchObject({ lands: { id: 'bookings-desk' }, mark: null });
    expect(row('2 1')).toMatchObject({ lands: { id: 'e-4000' }, mark: null });
    expect(row('2 *')).toMatchObject({ lands: { id: 'main-attendant' }, mark: 'back' });
    expect(row('*')).toMatchObject({ mark: 'back' });
    expect(row('no key')).toMatchObject({ lands: { id: 'e-2000' } });
  });

  it('the key that waits costs its seconds, and what is heard stands in order', () => {
    // Key 2 waits two seconds for an extension; key 1 does not.
    expect([row('1')!.seconds, row('2 1')!.seconds]).toEqual([1, 1 + 2 + 1]);
    expect(row('2 1')!.heard.map((h) => h.slice(0, 12))).toEqual(['Welcome to L', 'Freight. For']);
    expect(row('0')!.heard.at(-1)).toBe('One moment, I am connecting you.');
  });

  it('agrees with a call that comes in by a number and presses the same keys', () => {
    const call = {
      from: { type: 'outside', calling: '+447700900999' },
      dial: '+441632960183',
      enBloc: true,
      at: FRIDAY,
    } as const;
    for (const [keys, at] of [
      ['1', [1]],
      ['3', [1]],
      ['4', [1]],
      ['0', [1]],
      ['2 1', [1, 4]],
      ['2 2', [1, 4]],
    ] as const) {
      const pressed = keys.split(' ').map((key, i) => ({ key, atSeconds: at[i as 0]! }));
      expect(trace(exchange, call, { keys: pressed }).lands?.id).toBe(row(keys)!.lands!.id);
    }
  });

  it('when closed there is only what closed has; in a storm too a caller who waits gets to a mailbox', () => {
    const night = keyPaths(exchange, 'main-attendant', Date.parse('2026-11-27T23:00:00Z'), {});
    expect(night.map((p) => p.keys.join(' ')).sort()).toEqual(['3', '4', 'no key']);
    const storm = keyPaths(exchange, 'main-attendant', FRIDAY, {
      notices: [{ id: 'storm', of: 'main-attendant', from: '2026-11-27T00:00:00Z', open: false }],
    });
    expect(storm.find((p) => p.keys.join() === 'no key')).toMatchObject({ mark: null, lands: { id: 'm-2000' } });
  });

  it('dead ends are marked, and nothing is deeper than it may be', () => {
    const document = structuredClone(lanternfold());
    document.attendantKeys = document.attendantKeys!.filter(
      (k) => k.attendant !== 'freight-attendant' || k.key !== 'no key',
    );
    // A level that leads to itself by another key.
    document.attendantKeys.push({
      id: 'round',
      attendant: 'freight-attendant',
      key: '5',
      leadsTo: 'freight-attendant',
    });
    document.attendantKeys.push({ id: 'over', attendant: 'freight-attendant', key: '6', does: 'end' });
    const bare = readPlan(document);
    if (!bare.ok) throw new Error(JSON.stringify(bare.errors));
    const found = keyPaths(compile(bare.plan), 'main-attendant', FRIDAY, {});
    expect(found.find((p) => p.keys.join(' ') === '2 no key')!.mark).toBe('dead end');
    expect(found.find((p) => p.keys.join(' ') === '2 5')!.mark).toBe('back');
    expect(found.find((p) => p.keys.join(' ') === '2 6')!.mark).toBe('ends');
    expect(Math.max(...found.map((p) => p.keys.length))).toBeLessThanOrEqual(DEEPEST + 1);
  });
});
