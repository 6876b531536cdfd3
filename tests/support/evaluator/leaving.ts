import type { CallKind } from '@/core/numbers';
import type { Plan } from '@/core/plan';
import type { Call, Cause, Situation } from '@/core/routing';
import { DateTime } from 'luxon';
import type { From } from './destinations';
import { listed } from './evaluate';
import { read, write } from './numbers';

/* A call on its way out: rights, trunks, what is sent and what is shown (ENGINE E5 to E8, E12). */

export interface Ended {
  outcome: 'routed' | 'refused' | 'unroutable' | 'incomplete' | 'failed' | 'loop';
  lands: { kind: string; id: string | null; digits: string | null } | null;
  then: { afterSeconds: number; kind: string; id: string | null }[];
  kind: CallKind | null;
  rule: string | null;
  trunk: string | null;
  digitsSent: string | null;
  shownNumber: string | null;
  e164: string | null;
  cause: Cause | null;
}

/** One call in one plan and situation, and the seconds that have gone by. */
export interface World {
  plan: Plan;
  situation: Situation;
  call: Call;
  seconds: number;
  waited: number;
  landed: boolean;
  /** when somebody took it, and by which trunk it came */
  landedAt: number;
  /** the language spoken where the last walk was taken, and the one in which the next one begins */
  spoken: string;
  begins: string;
  /** keys used until then */
  pressed: number;
  trunk: Trunk | null;
  withheld: boolean;
}

export interface Right {
  cos: string;
  right: 'allow' | 'forward' | 'transfer';
  pin: boolean;
}

interface Owner {
  id: string;
  digits: string;
  site: string;
  outgoingNumber: string | null;
  withholdNumber: boolean;
}

export interface Leg {
  owner: Owner | null;
  caller: { person: string | null; site: string };
  rights: Right[];
  from: From;
  diverted: boolean;
  showsCaller: boolean;
  transit: boolean;
  site: string;
}

type Number = Plan['numbers'][number];
type Trunk = Plan['trunks'][number];

/** A number while it is active: from midnight of its day at its site. */
export function active({ plan, call }: World, id: string | null | undefined): Number | undefined {
  const number = plan.numbers.find((n) => n.id === id);
  if (!number || number.state !== 'active') return undefined;
  if (number.activeFrom === null) return number;
  const zone = plan.sites.find((s) => s.id === number.site)!.zone;
  return call.at >= DateTime.fromISO(number.activeFrom, { zone }).toMillis() ? number : undefined;
}

const CODEC_KBIT: Record<string, number> = { 'G.711A': 64, 'G.711U': 64, 'G.722': 64, 'G.729': 8, 'G.726-32': 32 };
const LINK: Record<string, number> = { none: 0, ppp: 6, ethernet: 18, vlan: 22 };

/** E12: whether the links between two sites carry one more call. */
export function linkFree({ plan, situation }: World, a: string, b: string): boolean {
  if (a === b) return true;
  const pair = plan.sitePairs.find((p) => [p.siteA, p.siteB].sort().join() === [a, b].sort().join());
  const [codec, ms] = pair ? [pair.codec, pair.packetMs] : ['G.711A', 20];
  return [a, b].every((id) => {
    const site = plan.sites.find((s) => s.id === id)!;
    if (site.linkKbitPerSecond === null) return true;
    const octets =
      Math.ceil((CODEC_KBIT[codec]! * ms) / 8) + 12 + 8 + (site.linkIp === '4' ? 20 : 40) + LINK[site.linkLayer]!;
    const one = (octets * 8) / ms;
    const used = situation.links?.find((l) => l.id === id)?.kbitPerSecond ?? 0;
    return used + one <= site.linkKbitPerSecond + 1e-6;
  });
}

/** RFC 3398 section 8.2.6.1 for what these tests use; a received 408 counts as 18. */
const CAUSES: Record<number, number> = {
  403: 21,
  404: 1,
  408: 18,
  480: 18,
  486: 17,
  500: 41,
  502: 38,
  503: 41,
  504: 102,
  600: 17,
  603: 21,
};
/** RFC 3398 section 7.2.4.1. */
const STATUS: Record<number, number> = {
  1: 404,
  3: 404,
  16: 500,
  17: 486,
  18: 408,
  21: 403,
  34: 503,
  38: 503,
  41: 503,
  42: 503,
  102: 504,
};
const MOVES = [3, 34, 38, 41, 42, 44, 47, 58, 102];

function chosen(world: World, trunks: string[], leg: Leg): { trunk: Trunk } | { cause: Cause } {
  const { plan, situation } = world;
  let onlyLink = trunks.length > 0;
  for (const id of trunks) {
    const trunk = plan.trunks.find((t) => t.id === id)!;
    const state = situation.trunks?.find((t) => t.id === id);
    const inUse = Math.max(state?.inUse ?? 0, new Set(state?.busyChannels?.filter((c) => c <= trunk.channels)).size);
    const pair = plan.sitePairs.find(
      (p) =>
        leg.from.site !== trunk.site && [p.siteA, p.siteB].sort().join() === [leg.from.site, trunk.site].sort().join(),
    );
    const { trunk: entered } = leg.from;
    const speaks =
      trunk.transcoding ||
      ((!pair || trunk.codecs.includes(pair.codec)) &&
        (!entered || entered.codecs.some((c) => trunk.codecs.includes(c))));
    const free = inUse < trunk.channels - trunk.keptForIncoming - trunk.keptForEmergency;
    if (!trunk.enabled || state?.up === false || !free || !speaks) {
      onlyLink = false;
      continue;
    }
    if (!linkFree(world, leg.from.site, trunk.site)) continue;
    if (leg.transit && !(trunk.transit && entered?.transit)) {
      onlyLink = false;
      continue;
    }
    const fails = state?.fails;
    if (!fails) return { trunk };
    onlyLink = false;
    if (fails.noResponse) {
      world.seconds += trunk.answerSeconds;
      if (!world.landed) world.waited += trunk.answerSeconds;
      continue;
    }
    if (fails.authentication) continue;
    const q850 = fails.q850 ?? CAUSES[fails.sip ?? 500]!;
    const sip = fails.sip ?? (fails.q850 === undefined ? 500 : STATUS[fails.q850]!);
    if (fails.afterRinging || sip >= 600 || !MOVES.includes(q850)) return { cause: { q850, sip } };
  }
  return { cause: onlyLink ? { q850: 47, sip: 503 } : { q850: 34, sip: 503 } };
}

export function leaves(world: World, rung: Plan['rungs'][number], digits: string, leg: Leg): Ended {
  const { plan, situation } = world;
  const base: Ended = {
    outcome: 'refused',
    lands: null,
    then: [],
    kind: null,
    rule: rung.id,
    trunk: null,
    digitsSent: null,
    shownNumber: null,
    e164: null,
    cause: { q850: 21, sip: 403 },
  };
  if (listed(plan, rung.notForPeople, rung.notForTeams, rung.notForSites, leg.caller)) return base;
  const site = plan.sites.find((s) => s.id === leg.site)!;
  const rest = (rung.prepend ?? '') + digits.slice(rung.strip);
  const number = read(plan, rest, rung.reading, site);
  const { kind } = number;
  if (kind === 'emergency' && leg.from.trunk) return { ...base, kind };
  if (!number.valid && !rung.asDialled) return { ...base, outcome: 'unroutable', kind, cause: { q850: 1, sip: 404 } };
  const e164 = number.valid ? number.e164 : null;
  for (const { cos, right, pin } of leg.rights) {
    if (kind === 'emergency') continue;
    const rights = plan.classes.find((c) => c.id === cos)!.rights[kind];
    if (!rights[right]) return { ...base, kind, e164 };
    if (right === 'allow' && pin && rights.pin && situation.pin === undefined) return { ...base, kind, e164 };
  }
  const choice = chosen(world, rung.trunks, leg);
  if ('cause' in choice) return { ...base, outcome: 'failed', kind, e164, cause: choice.cause };
  const { trunk } = choice;
  const end = plan.sites.find((s) => s.id === trunk.site)!;
  const sent =
    (trunk.carrierPrefix ?? '') +
    (!number.valid
      ? rest
      : number.e164 && trunk.writes !== 'private'
        ? write(number.e164, trunk.writes, end)
        : number.significant);
  return {
    ...base,
    outcome: 'routed',
    cause: null,
    kind,
    e164,
    trunk: trunk.id,
    digitsSent: sent,
    lands: { kind: 'outside', id: trunk.id, digits: sent },
    shownNumber: shown(world, rung, trunk, leg),
  };
}

function numberFor({ plan }: World, trunk: Trunk, e164: string): string {
  const site = plan.sites.find((s) => s.id === trunk.site)!;
  if (trunk.writes === 'private') return write(e164, 'significant', site).replace(/^00/, '');
  return write(e164, trunk.writes, site);
}

/** E8: the first that is set and active. */
function shown(world: World, rung: Plan['rungs'][number], trunk: Trunk, leg: Leg): string | null {
  const { plan, call } = world;
  const { from } = call;
  const caller = from.type === 'extension' ? plan.extensions.find((e) => e.id === from.id)! : null;
  if (!leg.diverted && leg.owner?.withholdNumber) return null;
  const withholds =
    world.withheld || (caller ? caller.withholdNumber : (from as { calling: string | null }).calling === null);
  if (withholds || rung.show === 'hidden') return null;
  const text = (e164: string) => numberFor(world, trunk, e164);
  if (leg.diverted && leg.from.trunk && leg.showsCaller && trunk.showsOriginalCaller)
    return leg.from.calling === null ? null : text(leg.from.calling);
  const { owner } = leg;
  if (rung.show === 'extension' && owner) return owner.digits;
  const own = owner
    ? plan.numbers
        .filter((n) => n.belongsTo === owner.id && active(world, n.id))
        .sort((a, b) => (a.e164 < b.e164 ? -1 : 1))[0]
    : undefined;
  const site = owner && plan.sites.find((s) => s.id === owner.site)!;
  const number =
    (rung.show === 'fixed' && active(world, rung.fixedNumber)) ||
    (owner && active(world, owner.outgoingNumber)) ||
    own ||
    (site && active(world, site.mainNumber)) ||
    active(world, trunk.ownNumber);
  return number ? text(number.e164) : null;
}
