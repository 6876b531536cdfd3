import type { Heard } from '../exchange/hear';
import type { OfferedSound } from './offer';

/** Music wherever nothing else is heard until an end, seconds; begun anew each time. */
export function overAndOver(heard: readonly OfferedSound[], music: Heard, end: number): OfferedSound[] {
  const out: OfferedSound[] = [];
  let silent = 0;
  for (const h of [...heard, null]) {
    const until = h ? h.afterSeconds : end;
    if (until > silent) out.push({ ...music, afterSeconds: silent, until });
    if (!h) break;
    out.push(h);
    silent = Math.max(silent, h.until);
  }
  return out;
}
