import { objectIn, rowVersion, type Client, type Document } from './api';
import { undoTo } from './jobs';

/** Where nobody but a test leads the main number. */
export const ELSEWHERE = { id: 'e-2117', name: 'e-2117' };

/** Leads the main number elsewhere in the draft, whatever was done before; gives what takes it back. */
export async function mainNumberElsewhere(client: Client): Promise<() => Promise<void>> {
  const before = (await client.get<Document>('/plan')).body;
  ELSEWHERE.name = String(before.extensions!.find((e) => e.id === ELSEWHERE.id)!.name);
  const value = await objectIn(client, 'draft', 'inboundRoutes', 'in-main');
  const version = await rowVersion('inbound_route', 'in-main');
  const edit = { kind: 'inboundRoute', id: 'in-main', rowVersion: version, value: { ...value, leadsTo: ELSEWHERE.id } };
  const made = await client.post('/edits', { edits: [edit] });
  if (made.status !== 200) throw new Error(JSON.stringify(made.body));
  return () => undoTo(client, before);
}
