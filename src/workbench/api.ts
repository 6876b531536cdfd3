'use client';

import type { Answer, Input } from '@/contract';
import { PATHS, type OperationName } from '@/contract/paths';
import type { OneError } from '@/contract/shared';

/** Errors of our API as a value (the shape that every door answers). */
export interface ApiErrors {
  /** HTTP status; 0: no answer at all, or one that is broken or was not waited for */
  status: number;
  errors: OneError[];
  /** of a stale edit: the object as it stands and who changed it */
  detail: {
    current?: Record<string, unknown> | null;
    rowVersion?: number | null;
    /** the fields in which somebody was faster; null: the whole object */
    fields?: string[] | null;
    by?: string;
    at?: string | null;
  };
}

export type ApiResult<T> = { ok: true; value: T } | ({ ok: false } & ApiErrors);

type Given<N extends OperationName> =
  object extends Input<N> ? [input?: Input<N>, signal?: AbortSignal] : [input: Input<N>, signal?: AbortSignal];

interface AnyInput {
  params?: Record<string, string>;
  query?: Record<string, unknown>;
  body?: unknown;
}

/** The address of an operation, such as a link to a file that it gives. */
export function addressOf<N extends OperationName>(name: N, input: Omit<Input<N>, 'body'>): string {
  const { params = {}, query = {} } = input as AnyInput;
  const path = PATHS[name][1].replace(/\{(\w+)\}/g, (_, part: string) => encodeURIComponent(params[part]!));
  const asked = new URLSearchParams(
    Object.entries(query).flatMap(([k, v]) => (v === undefined || v === '' ? [] : [[k, String(v)]])),
  ).toString();
  return `/api/v1${path}${asked ? `?${asked}` : ''}`;
}

const failed = (code: string, sentence: string, status = 0): { ok: false } & ApiErrors => ({
  ok: false,
  status,
  detail: {},
  errors: [{ code, path: '', sentence }],
});

/**
 * Calls an operation of our API. Never throws: no answer at all, one that is cut short, and one that is no longer waited for
 * come back as status 0 with a sentence, never as something that went well.
 */
export async function call<N extends OperationName>(name: N, ...given: Given<N>): Promise<ApiResult<Answer<N>>> {
  const [input = {}, signal] = given as [AnyInput?, AbortSignal?];
  return answered(name, input, signal, {
    method: PATHS[name][0],
    ...(input.body === undefined
      ? {}
      : { body: JSON.stringify(input.body), headers: { 'content-type': 'application/json' } }),
  });
}

/** Calls an operation that only reads and may take long; with its ticket it is asked meanwhile how far it has come. */
export const callLong = <N extends OperationName>(
  name: N,
  input: Input<N>,
  signal: AbortSignal,
  ticket: string,
): Promise<ApiResult<Answer<N>>> =>
  answered(name, input as AnyInput, signal, { method: PATHS[name][0], headers: { 'x-ticket': ticket } });

/** Asks for something small whose answer nobody waits for; it is done also where the page is left at once. */
export function tell<N extends OperationName>(name: N, input: Omit<Input<N>, 'body'>): void {
  void answered(name, input as AnyInput, undefined, { method: PATHS[name][0], keepalive: true });
}

/** Calls an operation whose body is a file. */
export const sendFile = <N extends OperationName>(
  name: N,
  input: Omit<Input<N>, 'body'>,
  file: Blob,
): Promise<ApiResult<Answer<N>>> =>
  answered(name, input as AnyInput, undefined, { method: PATHS[name][0], body: file });

async function answered<N extends OperationName>(
  name: N,
  input: AnyInput,
  signal: AbortSignal | undefined,
  init: RequestInit,
): Promise<ApiResult<Answer<N>>> {
  let response: Response;
  let value: unknown;
  try {
    response = await fetch(addressOf(name, input as Input<N>), { ...init, signal });
    value = await response.json();
  } catch {
    if (signal?.aborted) return failed('given-up', 'This is no longer waited for.');
    return failed('no-answer', 'Polydrome does not answer. What you typed is kept here.');
  }
  if (response.ok)
    return value === null || typeof value !== 'object'
      ? failed('no-answer', 'Polydrome does not answer properly.', response.status)
      : { ok: true, value: value as Answer<N> };
  if (response.status === 401 && !PATHS[name][1].startsWith('/session'))
    window.location.assign(`/sign-in?back=${encodeURIComponent(window.location.pathname + window.location.search)}`);
  const { error, errors } = (value ?? {}) as { error?: ApiErrors['detail']; errors?: OneError[] };
  if (!errors?.length) return failed('no-answer', 'Polydrome does not answer properly.', response.status);
  return { ok: false, status: response.status, detail: error ?? {}, errors };
}
