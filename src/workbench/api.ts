'use client';

/** Errors of our API as a value (the shape that every door answers). */
export interface ApiErrors {
  status: number;
  errors: { code: string; path: string; sentence: string; offset?: number }[];
  /** of a stale edit: the object as it stands and who changed it */
  detail: { current?: Record<string, unknown> | null; rowVersion?: number | null; by?: string; at?: string | null };
}

export type ApiResult<T> = { ok: true; value: T } | ({ ok: false } & ApiErrors);

/** Calls our API. Never throws: no answer at all comes back as status 0 with a sentence. */
export async function call<T>(
  method: 'GET' | 'POST' | 'PUT' | 'DELETE',
  path: string,
  body?: unknown,
  signal?: AbortSignal,
): Promise<ApiResult<T>> {
  let response: Response;
  try {
    response = await fetch(`/api/v1${path}`, {
      method,
      signal,
      ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
    });
  } catch {
    return {
      ok: false,
      status: 0,
      detail: {},
      errors: [{ code: 'no-answer', path: '', sentence: 'Polydrome does not answer. What you typed is kept here.' }],
    };
  }
  const value = (await response.json().catch(() => null)) as unknown;
  if (response.ok) return { ok: true, value: value as T };
  if (response.status === 401 && typeof window !== 'undefined' && !path.startsWith('/session'))
    window.location.assign(`/sign-in?back=${encodeURIComponent(window.location.pathname + window.location.search)}`);
  const { error, errors } = (value ?? {}) as { error?: ApiErrors['detail']; errors?: ApiErrors['errors'] };
  return {
    ok: false,
    status: response.status,
    detail: error ?? {},
    errors: errors ?? [{ code: 'no-answer', path: '', sentence: 'Polydrome does not answer properly.' }],
  };
}
