import { bandwidthOf, type LinkLayer } from '../load';
import type { Plan, Site, SitePair } from '../plan';
import type { Exchange } from './exchange';
import type { Situation } from './situation';

type Spoken = Pick<SitePair, 'codec' | 'packetMs'>;
type Link = Pick<Site, 'linkKbitPerSecond' | 'linkIp' | 'linkLayer'>;

/** What two sites speak when no pair says otherwise. */
const USUAL = { codec: 'G.711A', packetMs: 20 } as const;

/** Codec and packet time between two sites; null within one. */
export function spokenBetween(exchange: Exchange, a: string, b: string): Spoken | null {
  if (a === b) return null;
  return exchange.sitePairs.get(pairKey(a, b)) ?? USUAL;
}

/** One key for both directions. */
export function pairKey(a: string, b: string): string {
  return a < b ? `${a} ${b}` : `${b} ${a}`;
}

/** What is spoken over the link of a site in some plan, whatever the other site is. */
export const spokenAt = ({ sitePairs }: Pick<Plan, 'sitePairs'>, site: string): readonly Spoken[] => [
  USUAL,
  ...sitePairs.filter((p) => p.siteA === site || p.siteB === site),
];

/** Bandwidth of one call with this codec over the link of a site, in kbit/s; null when the codec can't make such packets. */
export const kbitPerCall = (exchange: Exchange, siteId: string, spoken: Spoken): number | null =>
  kbitOver(exchange.sites.get(siteId)!, spoken);

function kbitOver(site: Link, spoken: Spoken): number | null {
  const found = bandwidthOf(spoken.codec, spoken.packetMs, site.linkIp === '4' ? 4 : 6, site.linkLayer as LinkLayer);
  return found.ok ? found.kbitPerSecond : null;
}

/** Rounding slack in kbit/s: a budget of exactly one call admits one. */
const SLACK = 1e-6;

/** How much of the link of a site is in use, in kbit/s. */
export const usedOf = ({ links }: Situation, site: string): number =>
  links?.find((l) => l.id === site)?.kbitPerSecond ?? 0;

/** Whether the link of a site has room for one call more than those that use so many kbit/s. */
export function admitsOne(site: Link, spoken: Spoken, usedKbitPerSecond: number): boolean {
  const call = site.linkKbitPerSecond === null ? null : kbitOver(site, spoken);
  return call === null || usedKbitPerSecond + call <= site.linkKbitPerSecond! + SLACK;
}

/** Why the links between two sites admit no further call (ENGINE E12), in a sentence; null when they do. */
export function linkObstacle(exchange: Exchange, situation: Situation, from: string | null, to: string): string | null {
  const spoken = from ? spokenBetween(exchange, from, to) : null;
  if (!from || !spoken) return null;
  for (const id of [from, to]) {
    const site = exchange.sites.get(id)!;
    const used = usedOf(situation, id);
    if (!admitsOne(site, spoken, used))
      return `the link of ${site.name} is full: ${used} of ${site.linkKbitPerSecond} kbit/s are in use and a ${spoken.codec} call takes ${kbitOver(site, spoken)!.toFixed(1)}`;
  }
  return null;
}
