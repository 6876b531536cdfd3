/* Voice bandwidth per call and direction (ENGINE E12): codec, packet time, RTP, UDP, IP and the link layer. */

/** Octets a packet that the link adds: header and check sequence, no preamble. */
export const LINK_OCTETS = { none: 0, ppp: 6, ethernet: 18, vlan: 22 } as const;
export type LinkLayer = keyof typeof LINK_OCTETS;

const RTP_OCTETS = 12;
const UDP_OCTETS = 8;
const IP_OCTETS = { 4: 20, 6: 40 } as const;
const MOST_PACKET_MS = 120;

interface Framing {
  /** octets that one frame makes */
  octets: number;
  /** milliseconds of speech in a frame; packets hold whole frames */
  frameMs: number;
}

/** Codecs by the name of CONTRACT: G.711, G.722, G.726 and G.729 after their recommendations, iLBC after RFC 3951. */
const FRAMES: Readonly<Record<string, Framing>> = {
  'G.711A': { octets: 8, frameMs: 1 },
  'G.711U': { octets: 8, frameMs: 1 },
  'G.722': { octets: 8, frameMs: 1 },
  'G.726-32': { octets: 4, frameMs: 1 },
  'G.729': { octets: 10, frameMs: 10 },
  'iLBC-20': { octets: 38, frameMs: 20 },
  'iLBC-30': { octets: 50, frameMs: 30 },
};

/** Packet times that Opus makes (RFC 6716 section 2.1.4): frames of 2.5 to 60 ms, several of them up to 120. */
const OPUS_MS = [2.5, 5, 10, 20, 40, 60, 80, 100, 120];
const OPUS_KBIT = { least: 6, most: 510 };

export type Bandwidth =
  { ok: true; kbitPerSecond: number } | { ok: false; path: 'codec' | 'packetMs'; sentence: string };

/** Bandwidth of one call in one direction, k = 1000, without silence suppression. Never throws. */
export function bandwidthOf(codec: string, packetMs: number, ip: 4 | 6, link: LinkLayer): Bandwidth {
  const payload = payloadOctets(codec, packetMs);
  if (!payload.ok) return payload;
  const octets = payload.octets + RTP_OCTETS + UDP_OCTETS + IP_OCTETS[ip] + LINK_OCTETS[link];
  return { ok: true, kbitPerSecond: (octets * 8) / packetMs };
}

type Payload = { ok: true; octets: number } | Extract<Bandwidth, { ok: false }>;

function payloadOctets(codec: string, packetMs: number): Payload {
  const opus = /^opus-(\d{1,3})$/.exec(codec);
  if (opus) {
    const kbit = Number(opus[1]);
    if (kbit < OPUS_KBIT.least || kbit > OPUS_KBIT.most)
      return { ok: false, path: 'codec', sentence: `Opus speaks at 6 to 510 kbit/s, not at ${kbit}.` };
    if (!OPUS_MS.includes(packetMs))
      return {
        ok: false,
        path: 'packetMs',
        sentence: `Opus makes packets of ${OPUS_MS.join(', ')} ms, not of ${packetMs}.`,
      };
    return { ok: true, octets: Math.ceil((kbit * packetMs) / 8) };
  }
  const framing = FRAMES[codec];
  if (!framing)
    return {
      ok: false,
      path: 'codec',
      sentence: `${codec} is no codec; ${Object.keys(FRAMES).join(', ')} and opus-NN are.`,
    };
  const frames = packetMs / framing.frameMs;
  if (!Number.isInteger(frames) || frames < 1 || packetMs > MOST_PACKET_MS)
    return {
      ok: false,
      path: 'packetMs',
      sentence: `${codec} makes packets of whole ${framing.frameMs} ms frames, up to ${MOST_PACKET_MS} ms; ${packetMs} ms is none.`,
    };
  return { ok: true, octets: frames * framing.octets };
}

/** How many calls of a bandwidth a link admits within its budget. */
export function callsWithin(budgetKbit: number, kbitPerCall: number): number {
  return Math.floor(budgetKbit / kbitPerCall + 1e-9);
}
