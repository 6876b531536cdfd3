import type { Exchange, Situation } from '../routing';
import { AlikePhones } from './alike-phones';
import { DialledAt } from './dialled-at';
import type { Affected } from './affected';

/** What can make a difference in some plans side by side, and which phones nothing tells apart there. */
export interface Met {
  affected: Affected;
  alike: AlikePhones;
  dialled: DialledAt;
}

/** @param then, apart as of `AlikePhones` */
export function metIn(
  exchanges: readonly Exchange[],
  affected: Affected,
  situation: Situation,
  then: Situation = situation,
  apart: readonly string[] = [],
): Met {
  const alike = new AlikePhones(exchanges, affected, situation, then, apart);
  return { affected, alike, dialled: new DialledAt(exchanges, affected, alike) };
}
