import { OBJECTS, fieldsOf, labelOf, referrersTo, type AnyObject, type ObjectKind, type Referrer } from '../plan';
import {
  destinationOf,
  trace,
  type Exchange,
  type Landing,
  type Outcome,
  type Situation,
  type Trace,
} from '../routing';
import { callsAround, fromOutside } from './samples';

/** One thing in the pane: what kind of end or object it is, its name, and where to open it. */
export interface PaneLine {
  kind: string;
  label: string;
  detail: string;
  object: { kind: string; id: string } | null;
}

/** A call that ends elsewhere in the draft than live. */
export interface ChangedCall {
  call: string;
  was: { outcome: Outcome; lands: Landing | null; detail: string };
  willBe: { outcome: Outcome; lands: Landing | null; detail: string };
}

export interface Consequences {
  reachedBy: PaneLine[];
  leadsTo: PaneLine[];
  /** doubts that calls around the object show */
  doubts: string[];
  changes: ChangedCall[];
  /** how many calls around the object were compared; null when it is not edited */
  compared: number | null;
}

/**
 * What an object is reached by, leads to, and which calls around it end elsewhere than in `before`: the draft with this one
 * object as it is live, so that only this edit's doing shows. Null when it is not edited.
 */
export function consequencesOf(
  draft: Exchange,
  before: Exchange | null,
  kind: ObjectKind,
  id: string,
  at: number,
  situation: Situation,
): Consequences {
  const calls = callsAround(draft, kind, id, at);
  const changes: ChangedCall[] = [];
  const doubts = new Set<string>();
  for (const { call, label } of calls) {
    const now = trace(draft, call, situation);
    for (const doubt of now.doubts) doubts.add(doubt);
    if (!before) continue;
    const then = canAsk(before, call) ? trace(before, call, situation) : null;
    if (same(then, now)) continue;
    changes.push({
      call: label,
      was: then ? shortOf(then) : { outcome: 'unroutable', lands: null, detail: 'not there' },
      willBe: shortOf(now),
    });
  }
  return {
    reachedBy: reachedBy(draft, kind, id),
    leadsTo: leadsTo(draft, kind, id, at, situation),
    doubts: [...doubts].slice(0, 6),
    changes,
    compared: before ? calls.length : null,
  };
}

function canAsk(exchange: Exchange, call: Parameters<typeof trace>[1]): boolean {
  return call.from.type !== 'extension' || exchange.extensions.has(call.from.id);
}

/** Whether two answers are the same for everybody in the call. */
export function same(a: Trace | null, b: Trace): boolean {
  // A landing is known by what it is, not by what it is called: a new name changes no call.
  const end = (l: Landing | null) => l && [l.kind, l.id ?? l.label, l.digits];
  const then = (t: Trace) => t.then.map((x) => [x.when, x.afterSeconds, end(x.lands)]);
  const essence = (t: Trace) =>
    JSON.stringify([t.outcome, end(t.lands), then(t), t.trunk, t.digitsSent, t.shownNumber, t.cause]);
  return a !== null && essence(a) === essence(b);
}

function shortOf(t: Trace) {
  const detail =
    t.outcome !== 'routed'
      ? `cause ${t.cause?.q850}`
      : t.digitsSent
        ? `shows ${t.shownNumber ?? 'no number'}`
        : t.then[0]
          ? `then ${t.then[0].lands.label} after ${t.then[0].afterSeconds} s`
          : '';
  return { outcome: t.outcome, lands: t.lands, detail };
}

/** More referrers of one kind and field than this are counted instead of listed. */
const MOST_LISTED = 4;

const LINE_KINDS: Partial<Record<ObjectKind, string>> = {
  number: 'number',
  extension: 'extension',
  mailbox: 'mailbox',
  trunk: 'trunk',
  person: 'caller',
};

function reachedBy(exchange: Exchange, kind: ObjectKind, id: string): PaneLine[] {
  const lines: PaneLine[] = [];
  const extension = kind === 'extension' ? exchange.extensions.get(id) : undefined;
  if (extension)
    lines.push({ kind: 'extension', label: `${extension.digits} from any phone`, detail: '', object: null });
  const number = kind === 'number' ? exchange.numbers.get(id) : undefined;
  const trunk = number?.trunk ? exchange.trunks.get(number.trunk) : undefined;
  if (trunk)
    lines.push({
      kind: 'trunk',
      label: trunk.name,
      detail: 'calls to it arrive here',
      object: { kind: 'trunk', id: trunk.id },
    });
  const groups = grouped(referrersTo(exchange.plan, id));
  for (const group of groups.values()) {
    const { kind: by, field } = group[0]!;
    const word = OBJECTS[by].word;
    const role =
      fieldsOf(by)
        .find((f) => f.field === field)
        ?.title?.toLowerCase() ?? field;
    const glyph = LINE_KINDS[by] ?? 'rule';
    if (group.length > MOST_LISTED)
      lines.push({ kind: glyph, label: `${group.length} × ${word}`, detail: role, object: null });
    else
      for (const r of group)
        lines.push({
          kind: glyph,
          label: labelOf(r.kind, r.object),
          detail: `${word}, ${role}`,
          object: { kind: r.kind, id: r.object.id },
        });
  }
  return lines;
}

function grouped(referrers: Referrer[]): Map<string, Referrer[]> {
  const groups = new Map<string, Referrer[]>();
  for (const r of referrers) {
    const key = `${r.kind} ${r.field}`;
    groups.set(key, [...(groups.get(key) ?? []), r]);
  }
  return groups;
}

function leadsTo(exchange: Exchange, kind: ObjectKind, id: string, at: number, situation: Situation): PaneLine[] {
  const call = kind === 'number' ? numberCall(exchange, id, at) : callsAround(exchange, kind, id, at)[0]?.call;
  if (!call || !(kind === 'extension' || kind === 'number' || kind === 'inboundRoute' || kind === 'mailbox'))
    return trunksOf(exchange, kind, id);
  const t = trace(exchange, call, situation);
  const line = (lands: Landing, detail: string): PaneLine => ({
    kind: lands.kind,
    label: lands.label,
    detail,
    object: lands.id ? destinationOf(exchange, lands.id) : null,
  });
  if (!t.lands)
    return [
      { kind: 'refused', label: t.outcome, detail: `cause ${t.cause?.q850} (SIP ${t.cause?.sip})`, object: null },
    ];
  return [line(t.lands, ''), ...t.then.map((x) => line(x.lands, `${x.when}, after ${x.afterSeconds} s`))];
}

function numberCall(exchange: Exchange, id: string, at: number) {
  const number = exchange.numbers.get(id);
  return number && fromOutside(number.e164, at).call;
}

/** The trunks that an object names, in their order. */
function trunksOf(exchange: Exchange, kind: ObjectKind, id: string): PaneLine[] {
  const object = (kind === 'rung' || kind === 'site' ? exchange.plan[OBJECTS[kind].list] : []).find(
    (o: AnyObject) => o.id === id,
  );
  const ids = object
    ? 'trunks' in object
      ? object.trunks
      : 'emergencyTrunks' in object
        ? object.emergencyTrunks
        : []
    : [];
  return ids.map((t) => ({
    kind: 'trunk',
    label: exchange.trunks.get(t)!.name,
    detail: kind === 'site' ? 'emergency' : '',
    object: { kind: 'trunk', id: t },
  }));
}
