import { describe, expect, it } from '@jest/globals';
import { readCall } from '../ask';
import { compile, trace, type Situation, type Trace } from '.';
import { endsPlan } from '../../../tests/support/ends-plan';

/* E11: levels, hours and closing of queues, reach plans by hours and presence, and what is heard at a mailbox, told as stories. */

const OPEN = Date.parse('2026-12-04T10:00:00Z');
/** The office closes at 17:30 in London. */
const LATE = Date.parse('2026-12-04T17:29:00Z');
const NIGHT = Date.parse('2026-12-04T20:00:00Z');

type Changes = Partial<Record<'queues' | 'reachSteps' | 'mailboxes' | 'extensions', [id: string, fields: object][]>>;

function ask(dial: string, changes: Changes, situation: Situation = {}, at = OPEN, from = '2102'): Trace {
  const exchange = compile(
    endsPlan((d) => {
      for (const [list, changed] of Object.entries(changes))
        for (const [id, fields] of changed)
          Object.assign(
            ((d as Record<string, unknown>)[list] as { id: string }[]).find((o) => o.id === id)!,
            fields,
          );
      d.presenceRules ??= [];
    }),
  );
  const read = readCall({ from, dial, when: 'now', calling: null }, exchange, at);
  if (!read.ok) throw new Error(read.sentence);
  return trace(exchange, { ...read.call, at }, situation);
}
const line = (fields: object, situation: Situation = {}, at = OPEN) =>
  ask('5020', { queues: [['line', { recorded: false, intro: null, ...fields }]] }, situation, at);
const then = (t: Trace) => t.then.map((x) => [x.when, x.afterSeconds, x.lands.id ?? x.lands.label]);

describe('a queue with levels', () => {
  const levels = { permanentAgents: ['e3'], agents: [], secondAgents: ['e1', 'e7'], secondAfterSeconds: 45 };

  it('says who comes in later, as far as they are signed in', () => {
    const said = (situation: Situation) =>
      line(levels, situation).steps.find((s) => s.code === 'queue-takes')!.sentence;
    expect(said({})).toMatch(/: 1 of 1 agent free, calls/);
    expect(said({ agents: ['e1'] })).toMatch(/: 1 of 1 agent free, 1 of 1 more after 45 s, calls/);
    expect(said({ agents: ['e1', 'e7'], busy: ['e7'] })).toMatch(/ 1 of 2 more after 45 s/);
  });

  it('counts only the first level as free at once when too many wait', () => {
    const full = { ...levels, mostWaiting: 0, full: 'desk' };
    expect(line(full, { agents: ['e1'] }).lands?.id).toBe('line');
    expect(line(full, { agents: ['e1'], busy: ['e3'] }).lands?.id).toBe('desk');
  });

  it('has somebody signed in when only a later level is', () => {
    const later = { permanentAgents: [], agents: ['e3'], thirdAgents: ['e1'], nobodySignedIn: 'box' };
    expect(line(later).lands?.id).toBe('box');
    expect(line(later, { agents: ['e1'] }).lands?.id).toBe('line');
  });
});

describe('a queue with hours', () => {
  const hours = { hours: 'office', closed: 'closing', longestWaitSeconds: 120, waitedTooLong: 'box' };

  it('lets nobody in while it is closed, and those who wait stay', () => {
    expect(line(hours, {}, NIGHT).lands?.id).toBe('closing');
    expect(line({ ...hours, closed: null }, {}, NIGHT)).toMatchObject({ outcome: 'failed', cause: { q850: 20 } });
    expect(then(line(hours, {}, LATE))).toEqual([['waited too long', 120, 'box']]);
  });

  it('sends on who waits when it closes, where it says so', () => {
    const empties = { ...hours, closingEmpties: true };
    expect(then(line(empties, {}, LATE))).toEqual([['closes', 60, 'closing']]);
    expect(then(line(empties, {}, OPEN))).toEqual([['waited too long', 120, 'box']]);
    // Half a second before: the first whole second at which it is closed.
    expect(then(line(empties, {}, LATE + 59_500))).toEqual([['closes', 1, 'closing']]);
    // Without a longest wait the closing ends it all the same, hours later.
    expect(then(line({ ...empties, longestWaitSeconds: null }, {}, OPEN))).toEqual([['closes', 7.5 * 3600, 'closing']]);
    // A notice that says closed closes it too.
    const notice = { id: 'storm', hours: 'office', open: false, from: new Date(OPEN + 30_000).toISOString() };
    expect(then(line(empties, { notices: [notice] }, OPEN))).toEqual([['closes', 30, 'closing']]);
  });

  it('takes a key until it closes, not after', () => {
    const press = (atSeconds: number): Situation => ({ keys: [{ atSeconds, key: '0' }] });
    const empties = { ...hours, closingEmpties: true, exitTo: 'box' };
    expect(line(empties, press(59), LATE).lands?.id).toBe('box');
    expect(then(line(empties, press(61), LATE))).toEqual([['closes', 60, 'closing']]);
  });
});

describe('what is said to those who wait', () => {
  const said = (fields: object) =>
    line({ longestWaitSeconds: 100, ...fields })
      .heard.filter((h) => h.object.id === 'line')
      .map((h) => [h.phrase ?? h.prompt, h.atSeconds]);

  it('is one thing at a time: the offer waits for what is said, the place is left out where something else is heard', () => {
    const offer = { callbackKey: '1', callbackAfterSeconds: 0, announceEverySeconds: 40 };
    expect(said({ ...offer, callbackKey: null })).toEqual([
      ['position', 40],
      ['position', 80],
    ]);
    expect(said(offer)).toEqual([
      ['callback', 0],
      ['position', 40],
      ['position', 80],
    ]);
    // The introduction takes ten seconds.
    expect(said({ ...offer, intro: 'hello' })[1]).toEqual(['callback', 10]);
    expect(said({ ...offer, intro: 'hello', announceEverySeconds: 10 }).slice(0, 3)).toEqual([
      ['hello', 0],
      ['callback', 10],
      ['position', 20],
    ]);
    const both = said({ ...offer, callbackAfterSeconds: 40 });
    expect([both[0], both[1]![0]]).toEqual([['position', 40], 'callback']);
    expect(both[1]![1]).toBeGreaterThan(41);
  });
});

describe('a reach plan by hours and presence', () => {
  const find = (fields: object, situation: Situation = {}, at = OPEN) =>
    ask('2201', { reachSteps: [['s1', fields]] }, { off: ['e1'], ...situation }, at, '2203');

  it('takes a step only while its hours are as it says', () => {
    expect(find({ hours: 'office', when: 'open' }).lands?.id).toBe('x-joan');
    expect(find({ hours: 'office', when: 'open' }, {}, NIGHT).lands?.id).toBe('main');
    expect(find({ hours: 'office', when: 'closed' }).lands?.id).toBe('main');
    expect(find({ hours: 'office', when: 'closed' }, {}, NIGHT).lands?.id).toBe('x-joan');
  });

  it('takes a step only in the states of presence that it names, of the person who is looked for', () => {
    const exchange = compile(endsPlan());
    const rings = exchange.plan.presenceRules.find((r) => r.outside === 'ring' || r.internal === 'ring');
    expect(rings).toBeDefined();
    const step = { presences: [rings!.id] };
    expect(find(step).lands?.id).toBe('main');
    expect(find(step, { presence: { joan: rings!.activity } }).lands?.id).toBe('x-joan');
    expect(find(step, { presence: { yuki: rings!.activity } }).lands?.id).toBe('main');
  });
});

describe('what is heard at a mailbox', () => {
  const heard = (situation: Situation, box: object = {}) =>
    ask('2203', { mailboxes: [['box', box]] }, situation).heard.map((h) => [
      h.atSeconds,
      h.phrase ?? h.prompt ?? h.text,
    ]);
  const away: Situation = { off: ['x-yuki'] };
  const own = (situation: 'no answer' | 'busy' | 'away', text: string) => ({
    mailbox: 'box',
    situation,
    seconds: 4,
    text,
  });

  it('is the built-in greeting, that of the plan for the case, or the first one', () => {
    expect(heard(away)).toEqual([[0, 'mailbox']]);
    expect(heard(away, { greeting: 'hello' })).toEqual([[0, 'hello']]);
    expect(heard(away, { greeting: 'hello', greetingAway: 'night' })).toEqual([[0, 'night']]);
    expect(heard({ busy: ['x-yuki'] }, { greeting: 'hello', greetingAway: 'night' })).toEqual([[0, 'hello']]);
    expect(heard({ busy: ['x-yuki'] }, { greeting: 'hello', greetingBusy: 'night' })).toEqual([[0, 'night']]);
  });

  it('is the own greeting of its owner before that', () => {
    const both = { ...away, greetings: [own('away', 'At sea'), own('no answer', 'Later')] };
    expect(heard(both, { greetingAway: 'night' })).toEqual([[0, 'At sea']]);
    expect(heard({ ...both, off: [], busy: ['x-yuki'] })).toEqual([[0, 'Later']]);
    // One for another case says nothing here.
    expect(heard({ ...away, greetings: [own('busy', 'Speaking')] }, { greeting: 'hello' })).toEqual([[0, 'hello']]);
  });

  it('stops at the key for a person, and a full mailbox greets nobody', () => {
    const keyed = ask(
      '2203',
      { mailboxes: [['box', { greeting: 'hello', exitKey: '0', exitTo: 'desk' }]] },
      { ...away, keys: [{ atSeconds: 4, key: '0' }] },
    );
    expect(keyed.heard[0]).toMatchObject({ prompt: 'hello', atSeconds: 0, heardSeconds: 4 });
    expect(heard({ ...away, fullMailboxes: ['box'] }, { greeting: 'hello' })).toEqual([]);
  });
});
