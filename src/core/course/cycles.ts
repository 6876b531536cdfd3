import type { Drive } from '../destinations';

/**
 * Places that lead round to themselves. A `loop` turns without any wait and is an error; `ringing` turns with nothing but
 * ringing in between and ends at the hop limit (ENGINE E11). Cycles that a caller or a timer drives are none of these.
 */
export interface Cycle {
  type: 'loop' | 'ringing';
  nodes: string[];
}

interface Edge {
  from: string;
  to: string;
  drive: Drive;
}

/** The cycles of a graph by what drives them; a ringing cycle that is a loop already is not told twice. */
export function cycles(nodes: readonly string[], edges: readonly Edge[]): Cycle[] {
  const loops = components(
    nodes,
    edges.filter((e) => e.drive === 'none'),
  );
  const ringing = components(
    nodes,
    edges.filter((e) => e.drive === 'none' || e.drive === 'ring'),
  );
  const known = new Set(loops.map((l) => l.join()));
  return [
    ...loops.map((list): Cycle => ({ type: 'loop', nodes: list })),
    ...ringing.filter((list) => !known.has(list.join())).map((list): Cycle => ({ type: 'ringing', nodes: list })),
  ];
}

/** Strongly connected components that hold a cycle (Tarjan 1972), each in the order of the nodes. */
function components(nodes: readonly string[], edges: readonly Edge[]): string[][] {
  const next = new Map<string, string[]>(nodes.map((n) => [n, []]));
  for (const e of edges) next.get(e.from)?.push(e.to);
  const index = new Map<string, number>();
  const low = new Map<string, number>();
  const stack: string[] = [];
  const on = new Set<string>();
  const out: string[][] = [];
  for (const root of nodes) {
    if (index.has(root)) continue;
    const path: { node: string; rest: Iterator<string> }[] = [];
    const enter = (node: string) => {
      index.set(node, index.size);
      low.set(node, index.get(node)!);
      stack.push(node);
      on.add(node);
      path.push({ node, rest: next.get(node)![Symbol.iterator]() });
    };
    enter(root);
    while (path.length > 0) {
      const { node, rest } = path[path.length - 1]!;
      const step = rest.next();
      if (!step.done) {
        if (!index.has(step.value)) enter(step.value);
        else if (on.has(step.value)) low.set(node, Math.min(low.get(node)!, index.get(step.value)!));
        continue;
      }
      path.pop();
      const above = path[path.length - 1];
      if (above) low.set(above.node, Math.min(low.get(above.node)!, low.get(node)!));
      if (low.get(node) !== index.get(node)) continue;
      const members = stack.splice(stack.indexOf(node));
      for (const m of members) on.delete(m);
      if (members.length > 1 || next.get(node)!.includes(node)) out.push(nodes.filter((n) => members.includes(n)));
    }
  }
  return out;
}
