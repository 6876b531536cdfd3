import { dialledCells, type DialledCells } from '../cells';
import { run } from '../digits';
import type { DialContext, DialRule, Layer } from '../exchange/context';
import type { Exchange } from '../routing';

/** What has a string of its own that phones dial. */
export type Literal = Exclude<DialRule, { type: 'rung' }>;

/** What is dialled. */
export const stringOf = (rule: Literal): string => (rule.type === 'emergency' ? rule.form : rule.digits);

interface Standing {
  ofDial: ReadonlyMap<string, Literal>;
  dialsOf: ReadonlyMap<string, string[]>;
}

const standing = new WeakMap<Layer, Standing>();

/** What stands in a layer of plain strings: who has each, the first of several, and which each has. */
function standingIn(layer: Layer): Standing {
  let found = standing.get(layer);
  if (!found) {
    const ofDial = new Map<string, Literal>();
    const dialsOf = new Map<string, string[]>();
    for (const rule of layer.rules as Literal[]) {
      const dial = stringOf(rule);
      if (ofDial.has(dial)) continue;
      ofDial.set(dial, rule);
      const dials = dialsOf.get(idOf(rule));
      if (dials) dials.push(dial);
      else dialsOf.set(idOf(rule), [dial]);
    }
    standing.set(layer, (found = { ofDial, dialsOf }));
  }
  return found;
}

/** What has each string of a layer of plain ones: the first of several. */
export const stringsIn = (layer: Layer): ReadonlyMap<string, Literal> => standingIn(layer).ofDial;

/** What has a string in a context: emergency numbers before objects. */
export const literalAt = ({ emergency, objects }: DialContext, dial: string): Literal | undefined =>
  standingIn(emergency).ofDial.get(dial) ?? standingIn(objects).ofDial.get(dial);

/** The strings of emergency numbers in a context. */
export const emergencyDials = ({ emergency }: DialContext): string[] => [...standingIn(emergency).ofDial.keys()];

/** The strings that something has by its id, but those that are of an emergency number. */
export function dialsOf({ emergency, objects }: DialContext, id: string): string[] {
  const forms = standingIn(emergency).ofDial;
  return (standingIn(objects).dialsOf.get(id) ?? []).filter((dial) => !forms.has(dial));
}

/** The strings that stand in the plan, with what has each: emergency numbers before objects. */
export function* literalsOf({ emergency, objects }: DialContext): Generator<[dial: string, literal: Literal]> {
  const forms = standingIn(emergency).ofDial;
  yield* forms;
  for (const entry of standingIn(objects).ofDial) if (!forms.has(entry[0])) yield entry;
}

const alike = new WeakMap<Layer, WeakMap<Layer, boolean>>();

/** Whether the same strings stand in a layer of two plans, each for the same thing. */
export function sameLayer(was: Layer, willBe: Layer): boolean {
  if (was === willBe) return true;
  const known = alike.get(was) ?? new WeakMap<Layer, boolean>();
  alike.set(was, known);
  let same = known.get(willBe);
  if (same === undefined) {
    same =
      was.rules.length === willBe.rules.length &&
      was.rules.every((rule, i) => ruleName(rule) === ruleName(willBe.rules[i]!));
    known.set(willBe, same);
  }
  return same;
}

const ruleName = (rule: DialRule): unknown =>
  rule.type === 'rung' ? rule.compiled.rung : `${stringOf(rule)} ${idOf(rule)}`;

/** By what it is known; empty: nothing has the string. */
export const idOf = (rule: Literal | undefined): string =>
  rule === undefined
    ? ''
    : rule.type === 'emergency'
      ? `emergency ${rule.number}`
      : rule.type === 'service'
        ? rule.code.id
        : rule.id;

/** How a phone takes a string that stands in its context (ENGINE E3): whole, at once or after the timer, or something shorter before. */
export const takenAs = (exchange: Exchange, context: DialContext, dial: string): string =>
  takenIn(dialledCells(exchange, context), dial);

export const takenIn = ({ automaton, cells }: DialledCells, dial: string): string =>
  takenOf(cells[automaton.accepts[run(automaton, dial)]![0]!]!);

/** The same of all strings of a cell. */
export const takenOf = ({ takenEarly, waits }: DialledCells['cells'][number]): string =>
  takenEarly ? 'something shorter' : waits ? 'after the timer' : 'at once';
