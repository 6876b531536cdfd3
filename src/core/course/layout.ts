import dagre from '@dagrejs/dagre';
import type { Course, CourseNode } from './schema';

/* Where the places of a course stand, and the lines between them: the same on the screen and on paper. */

const NODE = { width: 150, height: 62 };
const ROW = 78;
const BELOW = 52;
/** of the circle of a place */
export const RADIUS = 14;
const TURN = 10;

export interface Placed extends CourseNode {
  x: number;
  y: number;
}

/** Places nodes left to right by machine; ends share one column at the right, the walked way stands on top. */
export function layOut(course: Course): { nodes: Placed[]; width: number; height: number } {
  const graph = new dagre.graphlib.Graph();
  graph.setGraph({ rankdir: 'LR', nodesep: 14, ranksep: 24, marginx: 10, marginy: 10 });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const n of course.nodes) graph.setNode(n.id, { ...NODE });
  for (const w of course.ways) graph.setEdge(w.from, w.to, { weight: w.walked ? 10 : 1 });
  dagre.layout(graph);
  const right = Math.max(...course.nodes.map((n) => graph.node(n.id).x));
  const walked = new Set(course.ways.filter((w) => w.walked).flatMap((w) => [w.from, w.to]));
  const top = NODE.height / 2 + 8;
  let row = 0;
  const nodes = course.nodes.map((n): Placed => {
    const x = n.end ? right : graph.node(n.id).x;
    const y = walked.has(n.id) ? top : top + ++row * ROW;
    return { ...n, x, y };
  });
  return { nodes, width: right + NODE.width / 2 + 30, height: top + row * ROW + BELOW };
}

/** From left to right in straight runs with rounded turns: a path as SVG writes it. */
export function pathBetween(a: Placed, b: Placed): string {
  const [x1, x2] = [a.x + RADIUS, b.x - RADIUS];
  if (a.x >= b.x - 1) {
    const x = a.x + 44;
    return `M${a.x + RADIUS} ${a.y} H${x - TURN} Q${x} ${a.y} ${x} ${a.y + TURN} V${b.y - TURN} Q${x} ${b.y} ${x - TURN} ${b.y} H${b.x + RADIUS}`;
  }
  if (a.y === b.y) return `M${x1} ${a.y} H${x2}`;
  const turn = Math.min(a.x + 52, x2 - TURN);
  return `M${x1} ${a.y} H${turn - TURN} Q${turn} ${a.y} ${turn} ${a.y + TURN} V${b.y - TURN} Q${turn} ${b.y} ${turn + TURN} ${b.y} H${x2}`;
}

/** Where the words of a way stand, and from which side they are written. */
export function wordsAt(a: Placed, b: Placed): { x: number; y: number; centred: boolean } {
  const x = a.x >= b.x - 1 ? a.x + 50 : a.y === b.y ? (a.x + b.x) / 2 : Math.min(a.x + 52, b.x - 24) + 8;
  return { x, y: (a.y === b.y ? a.y : b.y) - 7, centred: a.y === b.y };
}

/** Longest words under a place: its name, and what is told of it. */
export const LABEL_LENGTH = 24;
export const DETAIL_LENGTH = 28;

/** A text that fits under a place. */
export const cut = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);
