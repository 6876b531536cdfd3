import { nameOf, type Exchange, type Landing, type Trace } from '../routing';
import { extensionNamed } from './as-call';
import { courseOf } from './course';
import type { CallRecord } from './record';

/** Where a call went another way than a plan leads it: the first thing that differs, in words. */
export interface Difference {
  what: string;
  /** in the record */
  was: string;
  /** by the plan */
  willBe: string;
  /** second of the call */
  atSeconds: number;
}

/** Phones of a group ring with it, and stand in a record after it. */
const MEMBERS = new Set(['ringGroup', 'queue', 'reachPlan']);

/**
 * The first difference between what a record says and how a plan leads the call, in the order of the call: the number it came to, the trunk
 * by which it left and the number shown, each place on the way, how it ended. Null: as far as the record knows there is none.
 */
export function firstDifference(record: CallRecord, t: Trace, exchange: Exchange): Difference | null {
  return (
    numberDiffers(record, t) ??
    leavingDiffers(record, t, exchange) ??
    wayDiffers(record, t, exchange) ??
    endDiffers(record, t, exchange)
  );
}

const atOnce = (what: string, was: string, willBe: string): Difference => ({ what, was, willBe, atSeconds: 0 });

function numberDiffers({ entry }: CallRecord, t: Trace): Difference | null {
  if (entry.type !== 'number' || t.e164 === null || t.e164 === entry.number) return null;
  return atOnce('The called number', entry.number, t.e164);
}

function leavingDiffers(record: CallRecord, t: Trace, exchange: Exchange): Difference | null {
  if (record.entry.type !== 'phone' || record.trunk === null) return null;
  const name = (id: string | null) => (id === null ? 'no trunk' : (exchange.trunks.get(id)?.name ?? id));
  if (t.trunk !== record.trunk) return atOnce('The trunk', name(record.trunk), name(t.trunk));
  if (record.shown !== null && record.shown !== t.shownNumber)
    return atOnce('The number shown', record.shown, t.shownNumber ?? 'none');
  return null;
}

function wayDiffers(record: CallRecord, t: Trace, exchange: Exchange): Difference | null {
  const led = courseOf(t);
  const seen = placesOf(record.course);
  for (const [i, was] of seen.entries()) {
    const willBe = led[i];
    const same = willBe && (willBe.id === was.id || extensionNamed(exchange, was.id)?.id === willBe.id);
    if (!same)
      return {
        what: i === 0 ? 'The first place' : 'The next place',
        was: nameOf(exchange, was.id),
        willBe: willBe ? nameOf(exchange, willBe.id) : endName(t.lands, t.outcome),
        atSeconds: willBe?.atSeconds ?? was.atSeconds,
      };
  }
  return null;
}

/** The places of a record's course, without the phones that rang for a group. */
function placesOf(course: CallRecord['course']): CallRecord['course'] {
  let group: number | null = null;
  return course.filter((c) => {
    const isMember = group === c.atSeconds && c.kind === 'extension';
    if (!isMember) group = MEMBERS.has(c.kind) ? c.atSeconds : null;
    return !isMember;
  });
}

const endName = (lands: Pick<Landing, 'label'> | null, outcome: string) => lands?.label ?? outcome;

function endDiffers(record: CallRecord, t: Trace, exchange: Exchange): Difference | null {
  const { lands, outcome } = record;
  const atSeconds = record.course.at(-1)?.atSeconds ?? 0;
  const differs = (): Difference => ({
    what: 'The end',
    was: endName(lands && { label: lands.id ? nameOf(exchange, lands.id) : lands.label }, outcome),
    willBe: endName(t.lands, t.outcome),
    atSeconds,
  });
  if (outcome !== t.outcome) return differs();
  // A log that doesn't know where its call ended says nothing against any end.
  if (lands === null || t.lands === null) return null;
  if (lands.kind === 'outside' && t.lands.kind === 'outside') return null;
  const same = lands.id === null ? lands.digits === t.lands.digits : lands.id === t.lands.id;
  return lands.kind === t.lands.kind && same ? null : differs();
}
