import type { Client } from './api';
import { ended, type JobAnswer } from './jobs';

/** Sends a call log in pieces; gives the id by which it is kept. */
export async function sendLog(client: Client, content: string | Uint8Array, name = 'calls.csv'): Promise<string> {
  const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
  const begun = await client.post<{ id: string; pieceOctets: number }>('/call-logs', { name, octets: bytes.length });
  if (begun.status !== 200) throw new Error(JSON.stringify(begun.body));
  const { id, pieceOctets } = begun.body;
  for (let at = 0, piece = 0; at < bytes.length; at += pieceOctets, piece++) {
    const sent = await client.file(`/call-logs/${id}/pieces/${piece}`, bytes.subarray(at, at + pieceOctets), 'PUT');
    if (sent.status !== 200) throw new Error(JSON.stringify(sent.body));
  }
  return id;
}

/** Sends a call log and reads it, or keeps it. */
export async function bringIn(
  client: Client,
  content: string | Uint8Array,
  what: 'check' | 'import',
  settings: Record<string, unknown> = {},
): Promise<JobAnswer> {
  const id = await sendLog(client, content);
  const asked = await client.post<{ job: string }>(`/call-logs/${id}/${what}`, settings);
  if (asked.status !== 200) throw new Error(JSON.stringify(asked.body));
  return ended(client, asked.body.job, 600_000);
}
