import type { Schema } from './instance';
import type { Client } from './api';

/** An operation as our OpenAPI document tells it. */
export interface Operation {
  operationId: string;
  parameters: { name: string; in: 'path' | 'query'; required: boolean; schema: Schema }[];
  requestBody?: { content: Record<string, { schema: Schema }> };
  responses: Record<string, { content?: Record<string, { schema: Schema }> }>;
}

export interface Told {
  name: string;
  method: string;
  path: string;
  operation: Operation;
  answer: Schema | null;
  body: Schema | null;
}

const json = (content?: Record<string, { schema: Schema }>) => content?.['application/json']?.schema ?? null;

/** Every operation that the document tells, and the shape of errors. */
export async function toldBy(client: Client): Promise<{ all: Told[]; errors: Schema }> {
  const { body } = await client.get<{
    paths: Record<string, Record<string, Operation>>;
    components: { schemas: { Errors: Schema } };
  }>('/openapi.json');
  const all = Object.entries(body.paths).flatMap(([path, of]) =>
    Object.entries(of).map(([method, operation]): Told => ({
      name: operation.operationId,
      method: method.toUpperCase(),
      path,
      operation,
      answer: json(operation.responses[200]!.content),
      body: json(operation.requestBody?.content),
    })),
  );
  return { all, errors: body.components.schemas.Errors };
}

/** Objects of the demo company that stand in the names of paths. */
const NAMED: Record<string, string> = {
  '/people/{id}': 'p-3012',
  '/extensions/{id}': 'e-2104',
  '/trunks/{id}': 'kestrel',
  '/mailboxes/{id}': 'm-2104',
  '/teams/{id}': 'harbour',
};

/** A path of the document with something in each of its names: what is given, else an object of the demo company. */
export const named = (path: string, given: Record<string, string> = {}): string =>
  path.replace(/\{(\w+)\}/g, (_, part: string) => {
    if (given[part] !== undefined) return encodeURIComponent(given[part].toWellFormed());
    if (part === 'kind') return 'person';
    if (part === 'target') return 'extension';
    if (part === 'number') return '1';
    const known = Object.entries(NAMED).find(([start]) => path.startsWith(start));
    return known ? known[1] : '0198c0de-0000-7000-8000-000000000000';
  });
