import { afterEach, describe, expect, it, jest } from '@jest/globals';
import { addressOf, call, sendFile } from './api';

const real = globalThis.fetch;
afterEach(() => {
  globalThis.fetch = real;
});

const answers = (body: string | null, status = 200, type = 'application/json') => {
  globalThis.fetch = jest.fn(async () => new Response(body, { status, headers: { 'content-type': type } })) as never;
};

describe('a call of our API', () => {
  it.each([
    ['nothing', '', 200],
    ['null', 'null', 200],
    ['a number', '7', 200],
    ['half an answer', '{"edits":[', 200],
    ['a page of something between', '<html>', 502],
    ['an error that is none of ours', '{}', 500],
    ['an error without a list', '{"error":{}}', 409],
  ])('is never taken as done when %s came back', async (_what, body, status) => {
    answers(body, status);
    const result = await call('undo', { body: {} });
    expect(result).toMatchObject({ ok: false, errors: [{ code: 'no-answer' }] });
  });

  it('never throws, not even without a network', async () => {
    globalThis.fetch = jest.fn(async () => Promise.reject(new TypeError('no network'))) as never;
    expect(await call('undo', { body: {} })).toMatchObject({ ok: false, status: 0 });
    expect(await sendFile('importFile', { query: { name: 'a.csv' } } as never, new Blob(['x']))).toMatchObject({
      ok: false,
    });
  });

  it('says apart what was given up by us', async () => {
    const given = new AbortController();
    globalThis.fetch = jest.fn(async () => {
      given.abort();
      throw new DOMException('aborted', 'AbortError');
    }) as never;
    expect(await call('ask', { query: { text: '2101' } }, given.signal)).toMatchObject({
      ok: false,
      errors: [{ code: 'given-up' }],
    });
  });

  it('brings what a door refused as it was said', async () => {
    const errors = [{ code: 'stale', path: 'rowVersion', sentence: 'Somebody was faster.' }];
    answers(JSON.stringify({ error: { ...errors[0], by: 'Grace' }, errors }), 409);
    expect(await call('undo', { body: {} })).toMatchObject({ ok: false, status: 409, errors, detail: { by: 'Grace' } });
  });

  it('has addresses whose parts and questions are written safely', () => {
    expect(addressOf('job', { params: { id: 'a/b?c' } })).toBe('/api/v1/jobs/a%2Fb%3Fc');
    expect(addressOf('ask', { query: { text: '2101 > +44' } })).toBe('/api/v1/ask?text=2101+%3E+%2B44');
  });
});
