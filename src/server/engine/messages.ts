import { deserialize, serialize } from 'node:v8';
import type { OneError } from '@/contract/shared';
import { EditRefused, Refused } from '../access/rights';
import { DatabaseBusy, DatabaseGone } from '../db/pool';
import type { Versions } from '../db/versions';

/* What goes between whoever asks and the engine. */

/** What is idle is answered when nothing long waits, and put off where something long comes meanwhile. */
export type Lane = 'quick' | 'long' | 'idle';

/** The question that the engine's process answers itself. */
export const ALIVE = 'alive';

/** Asked of the engine, or taken back. */
export type Request = { type: 'ask'; id: number; name: string; lane: Lane } | { type: 'drop'; id: number };

/** The body of a question: what it is asked of, and at which versions where that matters. */
export interface Asked {
  input: unknown;
  at?: Versions;
}

export interface Reply {
  id: number;
  ok: boolean;
  /** no answer yet: how far it has come, 0 to 1 */
  progress?: number;
}

/** A refusal or an error as plain data. */
export interface Wrong {
  kind: 'refused' | 'edit-refused' | 'gone' | 'busy' | 'broken' | 'dropped' | 'away';
  status?: number;
  code?: string;
  message: string;
  path?: string;
  detail?: Record<string, unknown>;
  errors?: OneError[];
  stack?: string;
}

/** Thrown when the engine does not come back for too long; the doors answer 503 with it. */
export class EngineAway extends Error {
  constructor() {
    super('The routing engine is starting; its answers are on their way. Nothing was changed. Try again in a moment.');
  }
}

/** Nobody waits for the answer any more. */
export class Dropped extends Error {
  constructor() {
    super('nobody waits for this any more');
  }
}

export const pack = (value: unknown): Uint8Array => serialize(value);
export const unpack = (body: Uint8Array): unknown => deserialize(body);

export function wrongOf(e: unknown): Wrong {
  if (e instanceof EditRefused || e instanceof Refused)
    return {
      kind: e instanceof EditRefused ? 'edit-refused' : 'refused',
      status: e.status,
      code: e.code,
      message: e.message,
      path: e.path,
      detail: e.detail,
      errors: e.errors,
    };
  const message = e instanceof Error ? e.message : String(e);
  if (e instanceof Dropped) return { kind: 'dropped', message };
  if (e instanceof DatabaseGone) return { kind: 'gone', message };
  if (e instanceof DatabaseBusy) return { kind: 'busy', message };
  return { kind: 'broken', message, stack: e instanceof Error ? e.stack : undefined };
}

export function errorOf(w: Wrong): Error {
  switch (w.kind) {
    case 'refused':
      return new Refused(w.status!, w.code!, w.message, w.path, w.detail);
    case 'edit-refused':
      return new EditRefused(w.status!, w.code!, w.errors!, w.detail);
    case 'gone':
      return new DatabaseGone(new Error(w.message));
    case 'busy':
      return new DatabaseBusy();
    case 'dropped':
      return new Dropped();
    case 'away':
      return new EngineAway();
    default: {
      const error = new Error(w.message);
      if (w.stack) error.stack = w.stack;
      return error;
    }
  }
}
