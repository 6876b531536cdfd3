import {
  outsideKeysOf,
  overTime,
  phoneGroups,
  rewrittenApart,
  type DialledCells,
  type PhoneGroup,
  type TimeCell,
} from '../cells';
import { countDialable, run as runAutomaton, shortestWitness, type Automaton } from '../digits';
import type { DialContext } from '../exchange/context';
import type { Difference, Extension } from '../plan';
import { contextOf, landingOf, type Call, type Exchange } from '../routing';
import { cellsOf } from './atlas';
import type { Affected } from './affected';
import { callersEdited, kindsRuled, phonesApart } from './entries';
import type { ChangedCell, Comparing } from './changed';
import { holding, type Act } from './acts';
import type { Met } from './met';
import { differing, endOf, sentIn, type End } from './noticed';
import { sameLayer } from './literals';
import { Standing } from './impact-standing';
import { pairsBetween } from './pairs-between';
import { plainPairs } from './plain-pairs';
import { inOrder } from './spans';
import { movesSpaces } from './who-dials';

/** The two dialling contexts of a group of phones, at moments through which both stay. */
type Contexts = TimeCell<[DialContext, DialContext]>;

/** The calls from phones that end otherwise: by what is dialled, cut into regions, and by what stands in the plan with digits of its own. */
export function insideCells(comparing: Comparing, met: Met, edits: readonly Difference[]): ChangedCell[] {
  const { was, willBe, situation, span, progress } = comparing;
  const both = [was, willBe] as const;
  const apart = phonesApart(both, edits);
  const groups = phoneGroups(both, apart);
  const out: ChangedCell[] = [];
  const ofClasses = kindsRuled(edits);
  const keys = both.map(outsideKeysOf);
  const alike = new Map<string, ChangedCell[]>();
  const standing = new Standing(comparing, met, callersEdited(edits), movesSpaces(edits));
  groups.forEach((group, i) => {
    if (i % 10 === 0) progress?.(0.5 + (0.5 * i) / groups.length);
    const phones = both.map((x) => x.extensions.get(group.phone.id)!) as [Extension, Extension];
    const times: Contexts[] = overTime(
      both,
      situation,
      span,
      (watched, at) => watched.map((x, k) => contextOf(x, phones[k]!, { at, situation })) as [DialContext, DialContext],
    );
    const merged = mergedTimes(times);
    const isEdited = apart.has(group.phone.id);
    const alone = isEdited || phones.some((p) => met.affected.dialling.has(p.site));
    const ask = () =>
      merged.flatMap((time) => regions(comparing, met.affected, group, phones, { alone, ofClasses }, time));
    if (isEdited) out.push(...ask());
    else {
      // Phones that only codes tell apart dial everything else alike.
      const key = keys.map((keyOf, k) => keyOf(phones[k]!)).join('\n');
      const known = alike.get(key);
      for (const cell of known ?? []) (cell.callers as (readonly string[])[]).push(group.phones);
      if (!known) alike.set(key, ask());
    }
    standing.meet(
      group,
      phones,
      merged.map((time) => time.answer),
    );
  });
  return [...out, ...[...alike.values()].flat(), ...standing.cells];
}

/** Moments with the same contexts are one. */
function mergedTimes(times: readonly Contexts[]): Contexts[] {
  const out: Contexts[] = [];
  for (const time of times) {
    const known = out.find((t) => t.answer[0] === time.answer[0] && t.answer[1] === time.answer[1]);
    if (known) known.stretches = inOrder([...known.stretches, ...time.stretches]);
    else out.push({ ...time });
  }
  return out;
}

/** Trunks of a list that are taken to be down, one after another. */
const MOST_TRUNKS = 4;

const NO_KINDS: ReadonlySet<string> = new Set();

/** Strings that are dialled at phones of a group and that no object of the plan has, where they end otherwise. */
function regions(
  { was, willBe, situation, then = situation }: Comparing,
  { all, ids }: Affected,
  group: PhoneGroup,
  phones: readonly [Extension, Extension],
  { alone, ofClasses }: { alone: boolean; ofClasses: ReturnType<typeof kindsRuled> },
  { at, stretches, answer: contexts }: Contexts,
): ChangedCell[] {
  const both: readonly Exchange[] = [was, willBe];
  // What decides of a class is which kinds of calls it allows.
  const ofClass = phones.map((p) => (ids.has(p.class) ? ofClasses.get(p.class) : NO_KINDS) ?? null);
  const everything = all || alone || ofClass.includes(null);
  const kinds = new Set<string>(ofClass.flatMap((of) => [...(of ?? [])]));
  const ruled = contexts.map((c) => c.ladder.rules.map((r) => (r.type === 'rung' ? r.compiled.rung : null)));
  const sameRules = ruled[0]!.length === ruled[1]!.length && ruled[0]!.every((r, i) => r === ruled[1]![i]);
  const sameStrings =
    sameLayer(contexts[0].objects, contexts[1].objects) && sameLayer(contexts[0].emergency, contexts[1].emergency);
  // The same rules over the same digits, and none of them, nor what it leads to, is met by an edit.
  if (!everything && kinds.size === 0 && sameRules && sameStrings && !ruled[0]!.some((r) => ids.has(r!.id))) return [];
  const [mine, theirs] = both.map((x, i) => cellsOf(x, phones[i]!, at, situation)) as [DialledCells, DialledCells];
  const pairs = pairsBetween(mine, theirs);
  const out: ChangedCell[] = [];
  for (const { pair, cells, rules, alike } of plainPairs(pairs, mine, theirs)) {
    const isRuled = cells.some((c) => c.type === 'rule' && kinds.has(c.kind));
    if (alike && !everything && !isRuled && !rules.some((r) => r && ids.has(r.id))) continue;
    const call: Call = { from: { type: 'extension', id: group.phone.id }, dial: pair.example, enBloc: false, at };
    const endsOf = (asked: Call, acts: readonly Act[]) => {
      const holds = [holding(situation, acts), holding(then, acts)];
      return both.map((x, i) => endOf(landingOf(x, asked, holds[i]!))) as [End, End];
    };
    const compared = (acts: readonly Act[]) => {
      const [before, now] = endsOf(call, acts);
      const sent = [sentIn(cells[0], before), sentIn(cells[1], now)] as const;
      const apart = sent[0] && sent[1] ? rewrittenApart(() => pairs.stringsOf(pair), sent[0], sent[1]) : undefined;
      return {
        acts,
        before,
        now,
        apart,
        aspects: differing(before, now, apart === undefined ? undefined : apart === 'none'),
      };
    };
    let found = compared([]);
    // What follows where a trunk is down is asked only where it makes no difference while all are up.
    for (let n = 0; n < MOST_TRUNKS && found.aspects.length === 0 && found.before.trunk !== null; n++)
      found = compared([...found.acts, { type: 'trunk down', ids: [found.before.trunk] }]);
    const { acts, before, now, apart, aspects } = found;
    if (aspects.length === 0) continue;
    const cell = { acts, callers: [group.phones], number: null, stretches, aspects };
    // Where only the digits differ, and only of some of the strings, those are the ones.
    const some = typeof apart === 'object' && aspects.length === 1 ? apart : null;
    if (!some)
      out.push({ ...cell, call, strings: pair.count, has: (dial) => pairs.has(pair, dial), was: before, willBe: now });
    else {
      const asked = { ...call, dial: shortestWitness(some)! };
      const [one, other] = endsOf(asked, acts);
      out.push({ ...cell, call: asked, strings: countDialable(some), has: isIn(some), was: one, willBe: other });
    }
  }
  return out;
}

const isIn = (strings: Automaton) => (dial: string) => {
  const state = runAutomaton(strings, dial);
  return state >= 0 && strings.accepts[state]!.length > 0;
};
