import { z } from 'zod';
import { PATHS, contract, type Facts, type OperationName } from './';
import { errors } from './shared';

/** The OpenAPI 3.1 document, made from the contract that the doors use. */
export function openApiDocument(): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const name of Object.keys(PATHS) as OperationName[]) {
    const [method, path] = PATHS[name];
    (paths[path] ??= {})[method.toLowerCase()] = describe(name, contract[name]);
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Polydrome',
      version: '1',
      description: 'Plans of phone systems, and what happens to calls in them.',
    },
    servers: [{ url: '/api/v1' }],
    security: [{ bearer: [] }],
    paths,
    components: {
      securitySchemes: { bearer: { type: 'http', scheme: 'bearer' } },
      schemas: { Errors: schema(errors, 'output') },
    },
  };
}

function describe(name: OperationName, o: Facts): Record<string, unknown> {
  const inPath = [...PATHS[name][1].matchAll(/\{(\w+)\}/g)].map((m) => ({
    name: m[1],
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }));
  const body = o.body
    ? { 'application/json': { schema: schema(o.body, 'input') } }
    : o.fileBytes
      ? { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } }
      : null;
  return {
    operationId: name,
    summary: o.summary,
    ...(o.right === null
      ? { security: [] }
      : { description: `Needs the right: ${o.right}.${o.noTokens ? ' Not by a bearer token.' : ''}` }),
    parameters: [...inPath, ...inQuery(o.query)],
    ...(body ? { requestBody: { required: true, content: body } } : {}),
    responses: {
      200: {
        description: 'Done',
        ...(o.answer ? { content: { 'application/json': { schema: schema(o.answer, 'output') } } } : {}),
      },
      default: {
        description: 'Refused: where, and what would be right',
        content: { 'application/json': { schema: { $ref: '#/components/schemas/Errors' } } },
      },
    },
  };
}

function inQuery(query: z.ZodType | undefined): Record<string, unknown>[] {
  if (!query) return [];
  const { properties = {}, required = [] } = schema(query, 'input') as {
    properties?: Record<string, unknown>;
    required?: string[];
  };
  return Object.entries(properties).map(([name, s]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema: s,
  }));
}

function schema(of: z.ZodType, io: 'input' | 'output'): Record<string, unknown> {
  const { $schema: _, ...rest } = z.toJSONSchema(of, { io, unrepresentable: 'any', reused: 'inline' });
  void _;
  return rest;
}
