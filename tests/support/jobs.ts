import type { Client } from './api';

export interface JobAnswer {
  state: string;
  done: number;
  total: number;
  doing: string;
  result: Record<string, unknown> & {
    errors?: { code: string; path: string; sentence: string }[];
    counts?: Record<string, number>;
    wrong?: { row: number; errors: { column: string; sentence: string }[] }[];
  };
}

/** Waits until long work has ended. */
export async function ended(client: Client, job: string, timeoutMs = 120_000): Promise<JobAnswer> {
  const until = Date.now() + timeoutMs;
  for (;;) {
    const { body } = await client.get<JobAnswer & Record<string, unknown>>(`/jobs/${job}`);
    if (body.state !== 'waiting' && body.state !== 'running') return body;
    if (Date.now() > until) throw new Error(`job ${job} is still ${body.state}: ${body.doing}`);
    await new Promise((done) => setTimeout(done, 100));
  }
}

/** Undoes one's last acts until the draft is what it was; throws where that takes too many, or something else stands in the way. */
export async function undoTo(client: Client, before: object): Promise<void> {
  const wanted = JSON.stringify(before);
  for (let i = 0; i < 300; i++) {
    if (JSON.stringify((await client.get<object>('/plan')).body) === wanted) return;
    const { status, body } = await client.post<{ job?: string }>('/edits/undo');
    if (status !== 200) break;
    if (body.job) await ended(client, body.job);
  }
  throw new Error('the draft is not what it was before');
}

/** Keeps a file and checks or writes it with some settings. */
export async function importFile(
  client: Client,
  content: string | Uint8Array,
  settings: Record<string, unknown> = {},
  apply = false,
): Promise<JobAnswer> {
  const kept = await client.file('/imports?name=people.csv', content);
  if (kept.status !== 200) throw new Error(JSON.stringify(kept.body));
  const asked = await client.post<{ job: string }>(`/imports/${kept.body.id}/${apply ? 'apply' : 'check'}`, settings);
  if (asked.status !== 200) throw new Error(JSON.stringify(asked.body));
  return ended(client, asked.body.job);
}
