import { describe, expect, it } from '@jest/globals';
import { turnsOf } from './turns';

describe('turns', () => {
  const later = (ms = 5) => new Promise((done) => setTimeout(done, ms));

  it('let so much work go on at once, in the order in which it came, whatever fails', async () => {
    const inTurn = turnsOf(2);
    let [running, most] = [0, 0];
    const order: number[] = [];
    const work = (i: number) =>
      inTurn(undefined, async () => {
        order.push(i);
        most = Math.max(most, ++running);
        await later();
        running--;
        if (i % 3 === 0) throw new Error(String(i));
        return i;
      });
    const done = await Promise.allSettled(Array.from({ length: 9 }, (_, i) => work(i)));
    expect(most).toBe(2);
    expect(order).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8]);
    expect(done.map((d) => d.status === 'fulfilled')).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8].map((i) => i % 3 !== 0));
  });

  it('pass over whoever has gone away, and the next one comes', async () => {
    const inTurn = turnsOf(1);
    const gone = new AbortController();
    const first = inTurn(undefined, later);
    let ran = false;
    const left = inTurn(gone.signal, async () => {
      ran = true;
    });
    const next = inTurn(undefined, async () => 'here');
    gone.abort();
    await first;
    await expect(left).rejects.toThrow();
    expect([ran, await next]).toEqual([false, 'here']);
  });
});
