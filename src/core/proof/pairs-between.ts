import { pairsOf, type DialledCells, type Pairs } from '../cells';
import { innerOf } from './inner';

const laid = new WeakMap<DialledCells, WeakMap<DialledCells, Pairs>>();

/** What can be dialled in one plan laid over what can in another; made once for the two. */
export function pairsBetween(mine: DialledCells, theirs: DialledCells): Pairs {
  const known = innerOf(laid, mine);
  let pairs = known.get(theirs);
  if (!pairs) known.set(theirs, (pairs = pairsOf(mine, theirs)));
  return pairs;
}
