import { PATHS, type OperationName } from '@/contract';

interface Route {
  name: OperationName;
  method: string;
  parts: readonly string[];
}

const named = (r: Route) => r.parts.filter((p) => p.startsWith('{')).length;

const ROUTES: readonly Route[] = (Object.keys(PATHS) as OperationName[])
  .map((name) => ({ name, method: PATHS[name][0], parts: PATHS[name][1].split('/').slice(1) }))
  // What is spelt out goes before what has a name in braces: `/ledgers/number/landings` before `/ledgers/{kind}/…`.
  .sort((a, b) => named(a) - named(b));

export type Found =
  | { name: OperationName; params: Record<string, string> }
  | { name: null; /** what the path takes instead */ methods: string[] };

/** The operation of a method and a path below /api/v1, with the named parts of the path. */
export function routeOf(method: string, path: readonly string[]): Found {
  const methods = new Set<string>();
  for (const route of ROUTES) {
    const params = fits(route.parts, path);
    if (!params) continue;
    if (route.method === method) return { name: route.name, params };
    methods.add(route.method);
  }
  return { name: null, methods: [...methods] };
}

function fits(parts: readonly string[], path: readonly string[]): Record<string, string> | null {
  if (parts.length !== path.length) return null;
  const params: Record<string, string> = {};
  for (const [i, part] of parts.entries()) {
    if (part.startsWith('{')) params[part.slice(1, -1)] = path[i]!;
    else if (part !== path[i]) return null;
  }
  return params;
}
