import type { CellPair, DialCell, DialledCells, Pairs } from '../cells';
import type { Rung } from '../plan';

/** A pair of cells with strings that no object of the plan has in either. */
interface PlainPair {
  pair: CellPair;
  cells: readonly [DialCell, DialCell];
  rules: readonly (Rung | null)[];
  /** the same rule takes them, and sends them alike */
  alike: boolean;
}

const plain = new WeakMap<Pairs, readonly PlainPair[]>();

/** The pairs in which strings are dialled that no object of the plan has; found once for all phones that dial alike. */
export function plainPairs(pairs: Pairs, mine: DialledCells, theirs: DialledCells): readonly PlainPair[] {
  let found = plain.get(pairs);
  if (!found) {
    found = pairs.list.flatMap((pair): PlainPair[] => {
      const cells = [mine.cells[pair.was]!, theirs.cells[pair.willBe]!] as const;
      if (cells.some((c) => c.type === 'literal') || cells.every((c) => c.takenEarly)) return [];
      const rules = cells.map((c) => (c.type === 'rule' ? c.rule.rung : null));
      const alike =
        rules[0] === rules[1] && JSON.stringify(withoutRule(cells[0])) === JSON.stringify(withoutRule(cells[1]));
      return [{ pair, cells, rules, alike }];
    });
    plain.set(pairs, found);
  }
  return found;
}

const withoutRule = <T extends { type: string }>(cell: T) => ({ ...cell, rule: null });
