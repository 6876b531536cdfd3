import { bandwidthOf, type LinkLayer } from '../load';
import type { SitePair } from '../plan';
import type { Exchange } from './exchange';
import type { Situation } from './situation';

/** What two sites speak when no pair says otherwise. */
const USUAL = { codec: 'G.711A', packetMs: 20 } as const;

/** Codec and packet time between two sites; null within one. */
export function spokenBetween(exchange: Exchange, a: string, b: string): Pick<SitePair, 'codec' | 'packetMs'> | null {
  if (a === b) return null;
  return exchange.sitePairs.get(pairKey(a, b)) ?? USUAL;
}

/** One key for both directions. */
export function pairKey(a: string, b: string): string {
  return a < b ? `${a} ${b}` : `${b} ${a}`;
}

/** Bandwidth of one call with this codec over the link of a site, in kbit/s; null when the codec can't make such packets. */
export function kbitPerCall(
  exchange: Exchange,
  siteId: string,
  spoken: Pick<SitePair, 'codec' | 'packetMs'>,
): number | null {
  const site = exchange.sites.get(siteId)!;
  const found = bandwidthOf(spoken.codec, spoken.packetMs, site.linkIp === '4' ? 4 : 6, site.linkLayer as LinkLayer);
  return found.ok ? found.kbitPerSecond : null;
}

/** Rounding slack in kbit/s: a budget of exactly one call admits one. */
const SLACK = 1e-6;

/** Why the links between two sites admit no further call (ENGINE E12), in a sentence; null when they do. */
export function linkObstacle(exchange: Exchange, situation: Situation, from: string | null, to: string): string | null {
  const spoken = from ? spokenBetween(exchange, from, to) : null;
  if (!from || !spoken) return null;
  for (const id of [from, to]) {
    const site = exchange.sites.get(id)!;
    const budget = site.linkKbitPerSecond;
    const call = budget === null ? null : kbitPerCall(exchange, id, spoken);
    if (budget === null || call === null) continue;
    const used = situation.links?.find((l) => l.id === id)?.kbitPerSecond ?? 0;
    if (used + call > budget + SLACK)
      return `the link of ${site.name} is full: ${used} of ${budget} kbit/s are in use and a ${spoken.codec} call takes ${call.toFixed(1)}`;
  }
  return null;
}
