import { causeInWords } from '../exchange/cause';
import { spacedNumber } from '../numbers';
import type { Call, Exchange, Trace, TraceStep } from '../routing';
import type { Course, CourseKind, CourseNode, CourseWay } from './schema';

/* The course of one traced call: what it passes, where it ends, and what follows when nobody answers. */

/** Draws one trace as a graph: the walked way, trunks passed over, and the ways on without an answer. */
export function courseOf(exchange: Exchange, call: Call, trace: Trace): Course {
  const nodes: CourseNode[] = [];
  const ways: CourseWay[] = [];
  const add = (node: CourseNode) => {
    if (!nodes.some((n) => n.id === node.id)) nodes.push(node);
    return node.id;
  };
  const way = (from: string, to: string, when: string, walked: boolean) => ways.push({ from, to, when, walked });

  // What a place did with the call before it went on: the key pressed, the name spelt.
  let did = '';
  let last = add({ id: 'caller', kind: 'caller', ...callerLabel(exchange, call), end: false });
  for (const step of trace.steps) {
    if (step.type === 'trunk')
      for (const n of step.notTaken)
        way(last, add({ id: `not ${n.rule}`, kind: 'refused', label: n.label, detail: n.why, end: true }), '', false);
    if (step.atSeconds > endsAt(trace)) break;
    did = CHOSEN.has(step.code) ? (step.out ?? '') : did;
    const passed = passedOn(step) ?? passedThrough(step, trace);
    if (!passed || passed.id === last) continue;
    const when = step.type === 'incoming' ? 'arrives' : step.type === 'trunk' ? (trace.kind ?? '') : 'fits';
    way(last, add(passed), step.type === 'destination' ? did : when, true);
    if (step.type === 'destination') did = '';
    last = passed.id;
  }
  if (!trace.lands) {
    const why = [...trace.steps].reverse().find((s) => s.type !== 'end')?.sentence ?? '';
    way(
      last,
      add({
        id: 'refused',
        kind: 'refused',
        label: trace.outcome,
        detail: trace.cause ? causeInWords(trace.cause) : why,
        end: true,
      }),
      '',
      true,
    );
    return { nodes, ways };
  }
  let at = add({
    id: 'lands',
    kind: trace.lands.kind,
    label: trace.lands.kind === 'outside' ? outsideLabel(trace) : trace.lands.label,
    detail: landingDetail(trace),
    end: true,
  });
  way(last, at, did, true);
  trace.then.forEach((then, i) => {
    const next = add({
      id: `then ${i}`,
      kind: then.lands.kind,
      label: then.lands.label,
      detail: `after ${then.afterSeconds} s`,
      end: true,
    });
    way(i === 0 ? last : at, next, then.when, false);
    at = next;
  });
  return { nodes, ways };
}

function outsideLabel(trace: Trace): string {
  return trace.e164 ? spacedNumber(trace.e164) : (trace.digitsSent ?? trace.lands!.label);
}

function callerLabel(exchange: Exchange, call: Call): { label: string; detail: string } {
  const { from } = call;
  if (from.type === 'extension') {
    const e = exchange.extensions.get(from.id)!;
    return { label: `${e.digits} ${e.name}`, detail: exchange.sites.get(e.site)!.name };
  }
  const calling = from.calling ? spacedNumber(from.calling) : 'number withheld';
  return {
    label: calling,
    detail: from.type === 'trunk' ? `by ${exchange.trunks.get(from.id)!.name}` : 'outside caller',
  };
}

/** What a call passes on its way: the trunk it came in by, the rule or route that took it. */
function passedOn(step: TraceStep): CourseNode | null {
  if (!step.object) return null;
  const { kind, id, label } = step.object;
  const node = (k: CourseKind, detail: string): CourseNode => ({
    id: `${kind} ${id}`,
    kind: k,
    label,
    detail,
    end: false,
  });
  if (step.code === 'delivered') return node('trunk', step.in ? `delivers ${step.in}` : '');
  if (step.code === 'trunk-taken') return node('trunk', 'carries the call');
  if (step.type === 'rule' && step.code === 'rung-fits') return node('rule', 'outbound rule');
  if (step.type === 'emergency' && (step.code === 'emergency' || step.code === 'emergency-test'))
    return { ...node('rule', 'its own list of trunks'), label: `Emergency ${step.out}` };
  if (step.type === 'route' && kind === 'inboundRoute') return node('rule', 'inbound route');
  if (step.type === 'route' && kind === 'number') return node('rule', 'direct number');
  if (step.type === 'route' && step.code === 'otherwise')
    return { ...node('rule', 'otherwise'), id: 'otherwise', label: `Otherwise of ${label}` };
  return null;
}

/** Steps that say which key, digits or name took a caller on. */
const CHOSEN: ReadonlySet<TraceStep['code']> = new Set([
  'key-pressed',
  'extension-dialled',
  'name-spelt',
  'outside-asked',
]);
/** Places that speak to a caller and may pass the call on. */
const SPEAKS: ReadonlySet<TraceStep['code']> = new Set(['attendant-greets', 'directory-asks', 'prompt-plays']);

/** The second at which the call has landed; what steps say later follows only when nobody takes it. */
function endsAt({ steps, lands, then }: Trace): number {
  if (!lands || then.length === 0) return Infinity;
  const landed = steps.find((s) => s.object?.id === lands.id && s.type === 'destination');
  return landed?.atSeconds ?? Infinity;
}

/** A place that spoke to the caller on the way to where the call ended. */
function passedThrough({ code, object }: TraceStep, { lands }: Trace): CourseNode | null {
  if (!object || !SPEAKS.has(code) || object.id === lands?.id) return null;
  const kind = object.kind as CourseKind;
  return { id: `${kind} ${object.id}`, kind, label: object.label, detail: '', end: false };
}

function landingDetail(trace: Trace): string {
  if (trace.digitsSent) return `shows ${trace.shownNumber ?? 'no number'}`;
  return trace.secondsWaited > 0 ? `after ${trace.secondsWaited} s` : '';
}
