import {
  DIAL_START,
  dialMatch,
  dialled,
  rulesAt,
  type DialContext,
  type DialRule,
  type Layer,
} from '../exchange/context';

/** What has a string of its own that phones dial. */
export type Literal = Exclude<DialRule, { type: 'rung' }>;

const standing = new WeakMap<DialContext, ReadonlyMap<string, Literal>>();

/** The strings that stand in the plan, with what has each: emergency numbers before objects. */
export function literalsOf(context: DialContext): ReadonlyMap<string, Literal> {
  const known = standing.get(context);
  if (known) return known;
  const { emergency, objects } = context;
  const out = new Map<string, Literal>();
  standing.set(context, out);
  for (const rule of [...emergency.rules, ...objects.rules] as Literal[]) {
    const text = rule.type === 'emergency' ? rule.form : rule.digits;
    if (!out.has(text)) out.set(text, rule);
  }
  return out;
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
  rule.type === 'rung' ? rule.compiled.rung : `${rule.type === 'emergency' ? rule.form : rule.digits} ${idOf(rule)}`;

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
export function takenAs(context: DialContext, dial: string): 'at once' | 'after the timer' | 'something shorter' {
  let state = DIAL_START;
  for (let i = 0; i < dial.length; i++) {
    state = dialled(context, state, dial.charCodeAt(i))!;
    const final = rulesAt(context, state)[0]?.type === 'emergency' || dialMatch(context, state) === 'final';
    if (final) return i + 1 === dial.length ? 'at once' : 'something shorter';
  }
  return 'after the timer';
}
