import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { EditResult } from '@/contract/shared';
import type { ApiResult } from '../api';
import { EditStore, newer, type Base, type Of, type TypedFields } from './store';

/*
 * The queue of a tab against a draft that is written here, far more simply than the real one: objects as records, a colleague
 * who writes at any moment, answers that come when the test lets them.
 */

const OF: Of = { kind: 'person', id: 'p' };

type Sent = { edits: { set: Record<string, unknown>; seen: Record<string, unknown> }[] };

class Draft {
  fields: Record<string, unknown> = { name: 'Ann', email: 'a@x', note: '' };
  version = 1;
  waiting: (() => void)[] = [];
  refuse = new Map<string, string>();
  down = false;
  /** edits are taken, but their answers never come */
  lost = false;
  sent = 0;

  /** The request is looked at when its turn comes, and answered then. */
  send = (request: unknown): Promise<ApiResult<EditResult>> =>
    new Promise((answer) => {
      this.sent++;
      this.waiting.push(() => answer(this.judge(request as Sent)));
    });

  private judge({ edits: [edit] }: Sent): ApiResult<EditResult> {
    const { set, seen } = edit!;
    const fail = (status: number, errors: { path: string; sentence: string }[], detail: object = {}) =>
      ({ ok: false, status, detail, errors: errors.map((e) => ({ code: 'x', ...e })) }) as ApiResult<EditResult>;
    if (this.down) return fail(0, [{ path: '', sentence: 'no answer' }]);
    const lost = Object.keys(set).filter((f) => this.fields[f] !== seen[f] && this.fields[f] !== set[f]);
    if (lost.length > 0)
      return fail(409, [{ path: '', sentence: 'faster' }], {
        current: { ...this.fields },
        rowVersion: this.version,
        fields: lost,
        by: 'Kim',
      });
    const wrong = Object.keys(set).filter((f) => this.refuse.get(f) === set[f]);
    if (wrong.length > 0)
      return fail(
        422,
        wrong.map((f) => ({ path: `edits.0.value.${f}`, sentence: `${f} is refused` })),
      );
    this.fields = { ...this.fields, ...set };
    this.version++;
    if (this.lost) return fail(0, [{ path: '', sentence: 'no answer' }]);
    return { ok: true, value: { draftVersion: this.version, batch: 'b', rowVersions: { p: this.version } } };
  }

  colleague(field: string, value: unknown): void {
    this.fields = { ...this.fields, [field]: value };
    this.version++;
  }

  base = (): Base => ({ object: { ...this.fields, id: 'p' }, rowVersion: this.version });
}

const settle = async () => {
  for (let i = 0; i < 20; i++) await Promise.resolve();
};

function setUp() {
  const draft = new Draft();
  const kept = new Map<string, TypedFields>();
  const later: (() => void)[] = [];
  const store = new EditStore(
    draft.send as never,
    {
      read: (of) => kept.get(of.id) ?? null,
      write: (of, fields) => (fields ? kept.set(of.id, fields) : kept.delete(of.id)),
    },
    () => undefined,
    (work) => later.push(work),
  );
  let page = draft.base();
  return {
    draft,
    store,
    later,
    kept,
    page: () => page,
    /** the page is read again */
    refresh: () => (page = draft.base()),
    shown: (field: string) => {
      const state = store.state(OF);
      return state.typed[field] ? state.typed[field].value : newer(page, state.own).object[field];
    },
    type: (field: string, value: unknown) => store.type(OF, page, field, value),
    answer: async () => {
      draft.waiting.shift()?.();
      await settle();
    },
  };
}

describe('edits of a tab', () => {
  it('keeps what is typed into the next field while the first is on its way', async () => {
    const t = setUp();
    t.type('email', 'b@x');
    void t.store.commit(OF);
    await settle();
    for (const text of ['h', 'he', 'hel']) t.type('note', text);
    await t.answer();
    expect([t.shown('email'), t.shown('note')]).toEqual(['b@x', 'hel']);
    t.refresh();
    expect(t.shown('note')).toBe('hel');
    void t.store.commit(OF);
    await settle();
    await t.answer();
    expect(t.draft.fields).toMatchObject({ email: 'b@x', note: 'hel' });
    expect(t.kept.size).toBe(0);
  });

  it('sends what was left, never what is being typed just then', async () => {
    const t = setUp();
    t.type('email', 'b@x');
    void t.store.commit(OF);
    await settle();
    t.type('name', 'First');
    void t.store.commit(OF);
    // Before its turn comes, the name is being typed anew.
    t.type('name', 'Sec');
    await t.answer();
    await t.answer();
    expect(t.draft.fields.name).toBe('First');
    t.type('name', 'Second');
    void t.store.commit(OF);
    await settle();
    await t.answer();
    expect(t.draft.fields.name).toBe('Second');
    expect(t.kept.size).toBe(0);
  });

  it('an answer that was lost after the draft took the edit is nobody else’s edit', async () => {
    const t = setUp();
    t.type('name', 'First');
    void t.store.commit(OF);
    await settle();
    t.draft.lost = true;
    await t.answer();
    t.draft.lost = false;
    expect(t.draft.fields.name).toBe('First');
    t.type('name', 'Second');
    void t.store.commit(OF);
    await settle();
    await t.answer();
    await t.answer();
    expect(t.draft.fields.name).toBe('Second');
    expect(t.store.state(OF).contested).toEqual({});
    // What somebody else did is still told.
    t.draft.colleague('name', 'Theirs');
    t.type('name', 'Third');
    void t.store.commit(OF);
    await settle();
    await t.answer();
    expect(t.store.state(OF).contested).toEqual({ name: { theirs: 'Theirs' } });
  });

  it('sends what was changed again before its answer, and never what was not', async () => {
    const t = setUp();
    for (const value of [1, 2, 3, 4, 5, 6, 7, 8]) {
      t.type('note', value);
      void t.store.commit(OF, ['note']);
      await settle();
    }
    await t.answer();
    await t.answer();
    expect(t.draft.fields.note).toBe(8);
    // The first, then all that gathered behind it.
    expect(t.draft.sent).toBe(2);
  });

  it('takes back a change while it is being made', async () => {
    const t = setUp();
    t.type('name', 'Bea');
    void t.store.commit(OF);
    await settle();
    t.type('name', 'Ann');
    void t.store.commit(OF);
    await t.answer();
    await t.answer();
    expect(t.draft.fields.name).toBe('Ann');
    expect(t.shown('name')).toBe('Ann');
  });

  it('lets two people change different fields, and shows both of the same one', async () => {
    const t = setUp();
    t.type('name', 'Mine');
    t.type('email', 'mine@x');
    t.draft.colleague('name', 'Theirs');
    t.draft.colleague('note', 'theirs');
    void t.store.commit(OF);
    await settle();
    await t.answer();
    expect(t.store.state(OF)).toMatchObject({ contested: { name: { theirs: 'Theirs' } }, by: 'Kim' });
    await t.answer();
    expect(t.draft.fields).toEqual({ name: 'Theirs', email: 'mine@x', note: 'theirs' });
    expect(t.shown('name')).toBe('Mine');
    void t.store.keepMine(OF, ['name']);
    await settle();
    await t.answer();
    expect(t.draft.fields).toEqual({ name: 'Mine', email: 'mine@x', note: 'theirs' });
    expect(t.store.state(OF).contested).toEqual({});
  });

  it('does not keep a good field from the draft because another is wrong', async () => {
    const t = setUp();
    t.draft.refuse.set('email', 'nobody');
    t.type('email', 'nobody');
    t.type('name', 'Bea');
    void t.store.commit(OF);
    await settle();
    await t.answer();
    await t.answer();
    expect(t.draft.fields).toMatchObject({ name: 'Bea', email: 'a@x' });
    expect(t.store.state(OF)).toMatchObject({ refused: { email: 'email is refused' } });
    expect(t.shown('email')).toBe('nobody');
  });

  it('sends again what nothing answered', async () => {
    const t = setUp();
    t.draft.down = true;
    t.type('name', 'Bea');
    void t.store.commit(OF);
    await settle();
    await t.answer();
    expect(t.store.state(OF).general).toBe('no answer');
    expect(t.shown('name')).toBe('Bea');
    t.draft.down = false;
    t.later.shift()!();
    await settle();
    await t.answer();
    expect(t.draft.fields.name).toBe('Bea');
    expect(t.store.state(OF).general).toBeNull();
  });

  it('loses nothing, whatever comes when', async () => {
    const field = fc.constantFrom('name', 'email', 'note');
    const step = fc.oneof(
      fc.record({ do: fc.constant('type' as const), field, value: fc.constantFrom('a', 'b', 'c') }),
      fc.record({ do: fc.constant('leave' as const) }),
      fc.record({ do: fc.constant('answer' as const) }),
      fc.record({ do: fc.constant('refresh' as const) }),
      fc.record({ do: fc.constant('down' as const) }),
      fc.record({ do: fc.constant('colleague' as const), field, value: fc.constantFrom('x', 'y') }),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 40 }), async (steps) => {
        const t = setUp();
        /** what was typed last into a field, until it is seen on the screen as something else that is not ours */
        const mine = new Map<string, unknown>();
        const theirs = new Map<string, unknown>();
        for (const s of steps) {
          if (s.do === 'type') {
            t.type(s.field, s.value);
            mine.set(s.field, s.value);
          } else if (s.do === 'leave') {
            void t.store.commit(OF);
            await settle();
          } else if (s.do === 'answer') await t.answer();
          else if (s.do === 'refresh') t.refresh();
          else if (s.do === 'down') t.draft.down = !t.draft.down;
          else {
            t.draft.colleague(s.field, s.value);
            theirs.set(s.field, s.value);
          }
          // What was typed stands on the screen, always, until a colleague's later text came in by a page.
          for (const [f, v] of mine) if (!theirs.has(f)) expect([f, t.shown(f)]).toEqual([f, v]);
        }
        t.draft.down = false;
        for (let i = 0; i < 60; i++) {
          t.later.shift()?.();
          await t.answer();
        }
        t.refresh();
        void t.store.commit(OF);
        for (let i = 0; i < 10; i++) await t.answer();
        const { contested, typed } = t.store.state(OF);
        // Whatever is not asked about is in the draft; what is asked about stands on the screen as it was typed.
        expect(Object.keys(typed).sort()).toEqual(Object.keys(contested).sort());
        for (const [f, v] of mine) {
          if (contested[f]) expect(typed[f]!.value).toBe(v);
          else if (!theirs.has(f)) expect(t.draft.fields[f]).toBe(v);
          else
            expect([
              v,
              theirs.get(f),
              ...steps.flatMap((s) => ('value' in s && s.field === f ? [s.value] : [])),
            ]).toContain(t.draft.fields[f]);
        }
        for (const [f, v] of theirs) if (!mine.has(f)) expect(t.draft.fields[f]).toBe(v);
      }),
      { numRuns: 400 },
    );
  });
});
