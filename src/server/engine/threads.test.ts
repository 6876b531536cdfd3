import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { pack, unpack, type Lane } from './messages';
import { Threads, type Task } from './threads';

let threads: Threads;
beforeEach(() => {
  threads = new Threads(join(process.cwd(), 'tests/support/engine-thread.mjs'), 2);
});
afterEach(() => threads.end());

interface Answer {
  ok: boolean;
  value: { name: string; input: unknown; thread: number; message?: string };
}

function ask(name: string, input: unknown = null, lane: Lane = 'quick'): { task: Task; answer: Promise<Answer> } {
  let take: (a: Answer) => void;
  const answer = new Promise<Answer>((done) => (take = done));
  const task: Task = {
    name,
    lane,
    body: pack(input),
    deaths: 0,
    answer: (ok, body) => take({ ok, value: unpack(body) as Answer['value'] }),
  };
  threads.ask(task);
  return { task, answer };
}

describe('the threads of the engine', () => {
  it('answer each question once, long ones always in the same thread', async () => {
    const asked = Array.from({ length: 40 }, (_, i) => ask('echo', i, i % 4 === 0 ? 'long' : 'quick'));
    const got = await Promise.all(asked.map((a) => a.answer));
    expect(got.map((g) => g.value.input)).toEqual(asked.map((_, i) => i));
    expect(new Set(got.filter((_, i) => i % 4 === 0).map((g) => g.value.thread)).size).toBe(1);
  });

  it('answer what is quick while something long takes its time', async () => {
    const order: string[] = [];
    const long = ask('wait', 600, 'long').answer.then(() => order.push('long'));
    const next = ask('wait', 1, 'long').answer.then(() => order.push('next long'));
    const quick = Promise.all(Array.from({ length: 5 }, (_, i) => ask('echo', i).answer)).then(() =>
      order.push('quick'),
    );
    await Promise.all([long, next, quick]);
    expect(order).toEqual(['quick', 'long', 'next long']);
  });

  it('tell how far long work has come, and stop what nobody waits for', async () => {
    const told: number[] = [];
    const long = ask('work', 20_000, 'long');
    long.task.progress = (share) => told.push(share);
    const next = ask('echo', 'next', 'long');
    while (told.filter((share) => share > 0).length < 2) await new Promise((done) => setTimeout(done, 50));
    expect(told).toEqual([...told].sort((a, b) => a - b));
    threads.drop(long.task);
    expect((await long.answer).ok).toBe(false);
    // What comes after it is not stopped with it.
    expect((await next.answer).value.input).toBe('next');
    expect((await ask('work', 60, 'long').answer).ok).toBe(true);
  });

  it('put off what is idle for what is long, and begin it anew', async () => {
    const order: string[] = [];
    const idle = ask('work', 300, 'idle').answer.then((a) => order.push(`idle ${a.ok}`));
    await new Promise((done) => setTimeout(done, 100));
    const long = ask('wait', 20, 'long').answer.then(() => order.push('long'));
    await Promise.all([idle, long]);
    expect(order).toEqual(['long', 'idle true']);
    // What was put off and is no longer waited for is not begun anew.
    const dropped = ask('work', 20_000, 'idle');
    await new Promise((done) => setTimeout(done, 100));
    threads.drop(dropped.task);
    expect((await dropped.answer).ok).toBe(false);
  });

  it('are replaced when they die, and what they were at is asked again', async () => {
    const marker = join(mkdtempSync(join(tmpdir(), 'polydrome-')), 'died');
    const died = ask('die-once', marker);
    const others = Array.from({ length: 6 }, (_, i) => ask('echo', i));
    expect((await died.answer).ok).toBe(true);
    expect((await Promise.all(others.map((o) => o.answer))).every((o) => o.ok)).toBe(true);
  });

  it('give up a question over which they die again and again, and go on', async () => {
    const { ok, value } = await ask('die').answer;
    expect([ok, value.message]).toEqual([false, '“die” broke the engine']);
    expect((await ask('echo', 'still here').answer).value.input).toBe('still here');
  });

  it('forget what nobody waits for any more', async () => {
    const first = [ask('wait', 200), ask('wait', 200, 'long')];
    const dropped = ask('echo', 'dropped');
    threads.drop(dropped.task);
    await Promise.all(first.map((f) => f.answer));
    const late = Promise.race([dropped.answer, new Promise((done) => setTimeout(() => done('never'), 150))]);
    expect(await late).toBe('never');
  });
});
