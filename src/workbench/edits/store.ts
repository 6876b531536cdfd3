import type { EditResult } from '@/contract/shared';
import type { Edit, WholeEdit } from '@/contract/plan';
import type { DraftKind } from '@/core/plan';
import type { ApiResult } from '../api';

/*
 * Edits on their way from the screen to the draft, for everything that a tab has open. Knows no framework: what is typed comes
 * in, requests go out one after the other, and whoever listens is told.
 *
 * A field that was typed is kept until the draft has exactly that: an answer takes away only what it is the answer to.
 */

/** Which object. */
export interface Of {
  kind: DraftKind;
  id: string;
}

/** An object as the page brought it. */
export interface Base {
  object: Readonly<Record<string, unknown>>;
  rowVersion: number;
}

/** A field that was typed and is not in the draft: what it is to be, and what stood there when it was changed. */
export interface TypedField {
  value: unknown;
  seen: unknown;
}

export type TypedFields = Readonly<Record<string, TypedField>>;

/** What is kept of typed fields between pages and sittings. */
export interface Keeper {
  read(of: Of): TypedFields | null;
  /** null: nothing is left to keep */
  write(of: Of, fields: TypedFields | null): void;
}

/** A field in which somebody else was faster. */
export interface Contest {
  theirs: unknown;
}

/** What this tab's own edits made of an object, laid over pages that are older than that. */
interface Own {
  fields: Readonly<Record<string, unknown>>;
  rowVersion: number;
}

/** What is known of an object beside what the page brought. */
export interface ObjectState {
  own: Own | null;
  typed: TypedFields;
  /** fields in a request that is not answered yet */
  sending: ReadonlySet<string>;
  /** why the draft refused a field, by path in the object: `email`, `ranges.0` */
  refused: Readonly<Record<string, string>>;
  /** why it refused the object as a whole, or that nothing answers */
  general: string | null;
  contested: Readonly<Record<string, Contest>>;
  /** who was faster */
  by: string | null;
  /** somebody deleted it meanwhile */
  gone: boolean;
}

type Request = { edits: Edit[]; act?: string };
export type Send = (request: Request) => Promise<ApiResult<EditResult>>;

/** What goes together in one request, of several objects; deletions name no version: the last one known is taken. */
export type Together =
  | { do: 'add'; of: Of; value: Record<string, unknown> }
  | { do: 'remove'; of: Of; base: Base }
  | { do: 'set'; of: Of; base: Base; fields: Record<string, unknown> }
  | { do: 'move'; of: Of; after: string | null };

const same = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);
const keyOf = ({ kind, id }: Of) => `${kind} ${id}`;

const EMPTY: ObjectState = {
  own: null,
  typed: {},
  sending: new Set(),
  refused: {},
  general: null,
  contested: {},
  by: null,
  gone: false,
};

/** How many texts that were sent of a field are remembered. */
const MOST_SENT = 4;

const FIRST_PAUSE_MS = 2_000;
const LONGEST_PAUSE_MS = 30_000;

/** What a page brought, with what this tab's own edits made of it since. */
export const newer = (base: Base, own: Own | null): Base =>
  own && own.rowVersion > base.rowVersion
    ? { object: { ...base.object, ...own.fields }, rowVersion: own.rowVersion }
    : base;

export class EditStore {
  private readonly states = new Map<string, ObjectState>();
  private readonly listeners = new Set<() => void>();
  /** what was left of fields and waits for its turn: typing on sends nothing half typed */
  private readonly wanted = new Map<string, Map<string, unknown>>();
  /** what was sent of fields, newest last: an answer may be lost after the draft has taken it */
  private readonly sent = new Map<string, Record<string, readonly unknown[]>>();
  /** row versions that pages brought last */
  private readonly brought = new Map<string, number>();
  private turn: Promise<unknown> = Promise.resolve();
  private pause = FIRST_PAUSE_MS;
  private made = false;
  /** requests that are not answered yet */
  waiting = 0;
  version = 0;

  constructor(
    private readonly send: Send,
    private readonly keeper: Keeper,
    /** told when the draft has taken edits and no more are on their way: pages are read again then */
    private readonly onMade: () => void = () => undefined,
    private readonly later: (work: () => void, ms: number) => void = (work, ms) => void setTimeout(work, ms),
  ) {}

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  private tell(): void {
    this.version++;
    for (const listener of this.listeners) listener();
  }

  /** What is known of an object. Typed fields are read anew from where they are kept: another tab may have typed. */
  state(of: Of): ObjectState {
    const known = this.states.get(keyOf(of)) ?? EMPTY;
    const typed = this.keeper.read(of) ?? EMPTY.typed;
    return typed === known.typed ? known : { ...known, typed };
  }

  private put(of: Of, change: Partial<ObjectState>): void {
    const { typed, ...rest } = change;
    if (typed) this.keeper.write(of, Object.keys(typed).length > 0 ? typed : null);
    this.states.set(keyOf(of), { ...(this.states.get(keyOf(of)) ?? EMPTY), ...rest });
    this.tell();
  }

  /** Takes what is typed into a field; `base` is the object as the page shows it without what is typed. */
  type(of: Of, base: Base, field: string, value: unknown): void {
    const { typed, sending, own, refused } = this.state(of);
    this.brought.set(keyOf(of), base.rowVersion);
    const current = newer(base, own).object[field];
    const next = { ...typed };
    // Typed back to what stands there: nothing is left to save, unless the draft is just being made otherwise.
    if (same(value, current) && !sending.has(field)) delete next[field];
    else next[field] = { value, seen: typed[field] ? typed[field].seen : current };
    this.put(of, { typed: next, refused: without(refused, [field]), general: null });
  }

  /** Asks for the draft edit of what was typed into some fields (all when none is named). */
  commit(of: Of, fields?: readonly string[]): Promise<void> {
    const { typed, contested } = this.state(of);
    const ready = (fields ?? Object.keys(typed)).filter((f) => typed[f] && !(f in contested));
    if (ready.length === 0) return this.turn.then(() => undefined);
    return this.want(of, new Map(ready.map((f) => [f, typed[f]!.value])));
  }

  /** Values of fields that are to be in the draft; what is wanted of a field last is what is sent. */
  private want(of: Of, values: ReadonlyMap<string, unknown>): Promise<void> {
    this.wanted.set(keyOf(of), new Map([...(this.wanted.get(keyOf(of)) ?? []), ...values]));
    return this.enqueue(() => this.sendFields(of));
  }

  /** One request after the other: each stands on what the one before it made. */
  private enqueue<T>(work: () => Promise<T>): Promise<T> {
    this.waiting++;
    const next = this.turn.then(work).finally(() => {
      this.waiting--;
      if (this.waiting === 0 && this.made) {
        this.made = false;
        this.onMade();
      }
      this.tell();
    });
    this.turn = next.catch(() => undefined);
    return next;
  }

  private async sendFields(of: Of): Promise<void> {
    const asked = this.wanted.get(keyOf(of)) ?? new Map<string, unknown>();
    this.wanted.delete(keyOf(of));
    const { typed, contested } = this.state(of);
    const fields = [...asked.keys()].filter((x) => typed[x] && !(x in contested));
    if (fields.length === 0) return;
    const set = Object.fromEntries(fields.map((f) => [f, asked.get(f)]));
    const seen = Object.fromEntries(fields.map((f) => [f, typed[f]!.seen]));
    this.put(of, { sending: new Set(fields) });
    this.remember(of, set);
    const made = await this.send({ edits: [{ ...of, set, seen }] });
    if (made.ok) return this.taken(of, set, made.value.rowVersions[of.id]);
    if (made.status === 409) return this.fasterOthers(of, set, made);
    if (made.status === 0 || made.status >= 500) return this.again(of, set, made.errors[0]!.sentence);
    this.refusedBy(of, set, made.errors);
  }

  /** The draft has these fields now; what was typed since stays, and stands on them. */
  private taken(of: Of, set: Record<string, unknown>, rowVersion: number | undefined): void {
    const { typed, refused } = this.state(of);
    const left = Object.fromEntries(
      Object.entries(typed).flatMap(([f, t]) =>
        !(f in set) ? [[f, t]] : same(t.value, set[f]) ? [] : [[f, { value: t.value, seen: set[f] }]],
      ),
    );
    this.pause = FIRST_PAUSE_MS;
    this.put(of, {
      typed: left,
      sending: new Set(),
      refused: without(refused, Object.keys(set)),
      general: null,
      // No version: everything stood there as it was wanted.
      ...(rowVersion === undefined ? {} : { own: this.laidOver(of, set, rowVersion) }),
    });
    this.made = true;
  }

  /** Fields over those that no page has brought yet. */
  private laidOver(of: Of, fields: Record<string, unknown>, rowVersion: number): Own {
    const { own } = this.state(of);
    const still = own && own.rowVersion > (this.brought.get(keyOf(of)) ?? 0) ? own.fields : {};
    return { fields: { ...still, ...fields }, rowVersion };
  }

  private fasterOthers(
    of: Of,
    set: Record<string, unknown>,
    made: Extract<ApiResult<EditResult>, { ok: false }>,
  ): void {
    const { current, rowVersion, fields: lost, by } = made.detail;
    if (!current) {
      this.put(of, { sending: new Set(), gone: true, by: by ?? null, general: null });
      return;
    }
    const theirs = current as Record<string, unknown>;
    const { typed, contested: before } = this.state(of);
    const contested = { ...before };
    const next = { ...typed };
    const sent = this.sent.get(keyOf(of)) ?? {};
    for (const f of lost ?? Object.keys(set)) {
      // What stands there is what this tab sent before, in a request whose answer never came: nobody else was faster.
      const mine = (sent[f] ?? []).some((v) => same(v, theirs[f]));
      if (mine && next[f]) next[f] = { value: next[f].value, seen: theirs[f] };
      else contested[f] = { theirs: theirs[f] };
    }
    this.put(of, {
      typed: next,
      sending: new Set(),
      contested,
      by: by ?? null,
      general: null,
      own: { fields: theirs, rowVersion: rowVersion ?? 0 },
    });
    // The others, and what was sent from here, are nobody's but mine.
    void this.want(of, this.notNewer(of, without(set, Object.keys(contested))));
  }

  /** What was sent, without fields of which something newer waits already. */
  private notNewer(of: Of, set: Record<string, unknown>): Map<string, unknown> {
    const newer = this.wanted.get(keyOf(of));
    return new Map(Object.entries(set).filter(([f]) => !newer?.has(f)));
  }

  private remember(of: Of, set: Record<string, unknown>): void {
    const known = { ...this.sent.get(keyOf(of)) };
    for (const [f, v] of Object.entries(set)) known[f] = [...(known[f] ?? []).slice(1 - MOST_SENT), v];
    this.sent.set(keyOf(of), known);
  }

  /** Nothing answers: what was typed is kept and sent again, later each time. */
  private again(of: Of, set: Record<string, unknown>, sentence: string): void {
    this.put(of, { sending: new Set(), general: sentence });
    this.later(() => void this.want(of, this.notNewer(of, set)), this.pause);
    this.pause = Math.min(this.pause * 2, LONGEST_PAUSE_MS);
  }

  private refusedBy(of: Of, set: Record<string, unknown>, errors: readonly { path: string; sentence: string }[]): void {
    const refused = { ...this.state(of).refused };
    const fields = Object.keys(set);
    let general: string | null = null;
    const wrong = new Set<string>();
    for (const e of errors) {
      const path = /^edits\.\d+\.(?:value|set)\.(.+)$/.exec(e.path)?.[1];
      const head = path?.split('.')[0];
      if (path && head && fields.includes(head)) {
        refused[path] ??= e.sentence;
        wrong.add(head);
      } else general ??= e.sentence;
    }
    this.put(of, { sending: new Set(), refused, general });
    const fine = fields.filter((f) => !wrong.has(f));
    // What is wrong of one field keeps no other from the draft.
    if (wrong.size > 0 && general === null && fine.length > 0)
      void this.want(of, this.notNewer(of, without(set, [...wrong])));
  }

  /** Of contested fields, mine is wanted all the same. */
  keepMine(of: Of, fields: readonly string[]): Promise<void> {
    const { typed, contested } = this.state(of);
    const next = { ...typed };
    for (const f of fields) if (next[f] && contested[f]) next[f] = { value: next[f].value, seen: contested[f].theirs };
    this.put(of, { typed: next, contested: without(contested, fields) });
    return this.commit(of, fields);
  }

  /** What was typed into some fields is given up, for what stands in the draft. */
  giveUp(of: Of, fields: readonly string[]): void {
    const { typed, contested, refused } = this.state(of);
    this.put(of, {
      typed: without(typed, fields),
      contested: without(contested, fields),
      refused: without(refused, fields),
      general: null,
      gone: false,
    });
  }

  /** Edits of several objects that belong together: one request, one act, all of it or nothing. Gives what came of it. */
  together(parts: readonly Together[], act?: string): Promise<ApiResult<EditResult>> {
    return this.enqueue(async () => {
      const edits = parts.map((p) => this.editOf(p));
      const made = await this.send(act === undefined ? { edits } : { edits, act });
      if (made.ok) {
        for (const p of parts) this.followed(p, made.value.rowVersions[p.of.id]);
        this.made = true;
      }
      return made;
    });
  }

  private editOf(part: Together): Edit {
    const { of } = part;
    if (part.do === 'add') return { ...of, rowVersion: null, value: { ...part.value, id: of.id } };
    if (part.do === 'move') return { ...of, after: part.after };
    const current = newer(part.base, this.state(of).own);
    if (part.do === 'remove') return { ...of, rowVersion: current.rowVersion, value: null } satisfies WholeEdit;
    const seen = Object.fromEntries(Object.keys(part.fields).map((f) => [f, current.object[f] ?? null]));
    return { ...of, set: part.fields, seen };
  }

  /** What an edit that was taken left of an object, until a page brings it. */
  private followed(part: Together, rowVersion: number | undefined): void {
    if (rowVersion === undefined) return;
    if (part.do === 'add') this.put(part.of, { own: { fields: { ...part.value, id: part.of.id }, rowVersion } });
    if (part.do === 'set') this.brought.set(keyOf(part.of), part.base.rowVersion);
    if (part.do === 'set') this.put(part.of, { own: this.laidOver(part.of, part.fields, rowVersion) });
  }
}

/** A record without some fields, and without what lies within them. */
function without<T>(record: Readonly<Record<string, T>>, fields: readonly string[]): Record<string, T> {
  return Object.fromEntries(Object.entries(record).filter(([f]) => !fields.includes(f.split('.')[0]!)));
}
