import type { CallRecord } from '@/core/records';
import type { Exchange } from '@/core/routing';

/* Channels of trunks, taken and freed; who finds none is refused. */

/** Q.850 34 and SIP 503: no channel free. */
const NO_CHANNEL = { q850: 34, sip: 503 };
const REFUSED_MS = 1500;

/** Gives each call by a trunk the lowest free channel; a call out that finds none had no luck. `records` by their start. */
export function withChannels(records: readonly CallRecord[], exchange: Exchange): CallRecord[] {
  const until = new Map<string, number[]>();
  return records.map((r) => {
    const trunk = r.trunk === null ? undefined : exchange.trunks.get(r.trunk);
    if (!trunk) return r;
    const taken = until.get(trunk.id) ?? [];
    until.set(trunk.id, taken);
    const [from, to] = [Date.parse(r.started), Date.parse(r.ended)];
    const out = r.entry.type === 'phone';
    const usable = trunk.channels - trunk.keptForEmergency - (out ? trunk.keptForIncoming : 0);
    const inUse = taken.filter((t) => t > from).length;
    if (out && inUse >= usable) return refused(r, from);
    const free = Array.from({ length: trunk.channels }, (_, i) => i).find((i) => (taken[i] ?? 0) <= from);
    if (free === undefined) return r;
    taken[free] = to;
    return { ...r, channel: free + 1 };
  });
}

const refused = (r: CallRecord, from: number): CallRecord => ({
  ...r,
  answered: null,
  ended: new Date(from + REFUSED_MS).toISOString(),
  shown: null,
  course: [],
  outcome: 'failed',
  lands: null,
  answeredBy: null,
  keys: [],
  cause: NO_CHANNEL,
  endedBy: 'exchange',
});
