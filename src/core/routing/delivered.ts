import { nationalPrefixOf, readDigits, readText, writeNumber, type OutsideNumber } from '../numbers';
import type { PlanNumber, Trunk } from '../plan';
import { knownNumber, type Exchange } from '../exchange/exchange';
import { refTo, type Run } from './run';

/* What carriers deliver: digits as a trunk sends them, and the numbers that they are read as (ENGINE E9). */

/**
 * A number as somebody outside writes it: international, or in the national form of a country where we have a site (then
 * one of ours is preferred).
 */
export function dialledFromOutside(
  exchange: Exchange,
  text: string,
): { e164: string | null; number: PlanNumber | undefined } {
  const international = text.trim().startsWith('+');
  const places = [...exchange.places.values()].slice(0, international ? 1 : undefined);
  const readings = places.flatMap((place) => readText(text, place).e164 ?? []);
  const ours = readings.find((e) => exchange.numberByE164.has(e));
  const e164 = ours ?? readings[0] ?? null;
  return { e164, number: ours ? exchange.numberByE164.get(ours) : undefined };
}

/** The digits a trunk delivers for a number of ours: its form, less the head, cut to its length. */
export function deliveredBy(exchange: Exchange, trunk: Trunk, number: PlanNumber): string {
  const place = exchange.places.get(trunk.site)!;
  const form = trunk.deliveredForm === 'private' ? 'significant' : trunk.deliveredForm;
  const whole = writeNumber(knownNumber(exchange, number.e164), form, place.country, place.area);
  const headless =
    trunk.deliveredHead && whole.startsWith(trunk.deliveredHead) ? whole.slice(trunk.deliveredHead.length) : whole;
  const length = trunk.deliveredLength;
  return length !== null && headless.replace('+', '').length > length ? headless.slice(-length) : headless;
}

/** Delivered digits as a number, as the trunk says they are to be read (ENGINE E9). */
function readingOf(exchange: Exchange, trunk: Trunk, delivered: string): OutsideNumber {
  const place = exchange.places.get(trunk.site)!;
  const { deliveredForm: form } = trunk;
  const digits = (trunk.deliveredHead + delivered).replace(/^\+/, '');
  const reading = form === 'plus' || form === 'digits' ? 'international' : form === 'significant' ? 'national' : form;
  return readDigits(form === 'significant' ? `${nationalPrefixOf(place.country)}${digits}` : digits, reading, place);
}

/** What numbers arrived as by a trunk, and the places by which that was read. */
const arrived = new WeakMap<PlanNumber, { trunk: Trunk; places: Exchange['places']; as: OutsideNumber }>();

/** What a call to a number of ours is read as when its trunk brings it, as the plan describes the trunk; kept while both are the same. */
export function arrivesAs(exchange: Exchange, trunk: Trunk, number: PlanNumber): OutsideNumber {
  const { places } = exchange;
  const before = arrived.get(number);
  if (before?.trunk === trunk && before.places === places) return before.as;
  const as = readingOf(exchange, trunk, deliveredBy(exchange, trunk, number));
  arrived.set(number, { trunk, places, as });
  return as;
}

/** Delivered digits as a number, said; a length that differs from the trunk's own statement is a doubt. */
export function readDelivered(run: Run, trunk: Trunk, delivered: string): OutsideNumber {
  const object = refTo('trunk', trunk);
  const { deliveredLength } = trunk;
  const number = readingOf(run.exchange, trunk, delivered);
  const came = delivered.replace(/^\+/, '').length;
  const off = deliveredLength !== null && came !== deliveredLength;
  const as = number.e164 ?? number.significant;
  run.step(
    'incoming',
    number.e164 || number.type === 'private' ? 'delivered' : 'delivered-unreadable',
    `${trunk.name} delivers ${came} ${came === 1 ? 'digit' : 'digits'}, ${number.e164 || number.type === 'private' ? `read as ${as}` : `which can't be read: ${number.why}`}.`,
    { object, in: delivered, out: as },
  );
  if (off) {
    const doubt = `${trunk.name} says it delivers ${deliveredLength} digits; ${came} came.`;
    run.doubts.push(doubt);
    run.step('incoming', 'delivered-other-length', doubt, { object, in: delivered });
  }
  return number;
}

/** The calling number as E.164 where it can be read; null when withheld. */
export function callingE164(run: Run, trunk: Trunk, calling: string | null): string | null {
  if (calling === null) return null;
  const number = readText(calling, run.exchange.places.get(trunk.site)!);
  return number.e164 ?? calling;
}
