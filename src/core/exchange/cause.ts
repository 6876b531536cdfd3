/** Why a call ended: ITU-T Q.850 cause value and SIP status code. */
export interface Cause {
  q850: number;
  sip: number;
}

export const UNALLOCATED: Cause = { q850: 1, sip: 404 };
/** The call ends because somebody ends it; there is nothing for SIP to refuse (RFC 3261 section 15: BYE). */
export const CLEARED: Cause = { q850: 16, sip: 200 };
export const INCOMPLETE: Cause = { q850: 28, sip: 484 };
export const REFUSED: Cause = { q850: 21, sip: 403 };
export const NO_CHANNEL: Cause = { q850: 34, sip: 503 };
export const BUSY: Cause = { q850: 17, sip: 486 };
export const NO_ANSWER: Cause = { q850: 19, sip: 480 };
export const UNREACHABLE: Cause = { q850: 20, sip: 480 };
export const LOOP: Cause = { q850: 25, sip: 482 };
export const TOO_MANY_HOPS: Cause = { q850: 25, sip: 483 };
export const OUT_OF_ORDER: Cause = { q850: 38, sip: 503 };
/** Resource unavailable: the link of a site carries no further call. */
export const LINK_FULL: Cause = { q850: 47, sip: 503 };
export const TIMER: Cause = { q850: 102, sip: 504 };

/** SIP status to Q.850 cause, RFC 3398 section 8.2.6.1; a received 408 counts as 18 (ENGINE E7). */
const FROM_SIP: Readonly<Record<number, number>> = {
  400: 41,
  401: 21,
  402: 21,
  403: 21,
  404: 1,
  405: 63,
  406: 79,
  407: 21,
  408: 18,
  410: 22,
  413: 127,
  414: 127,
  415: 79,
  416: 127,
  420: 127,
  421: 127,
  423: 127,
  480: 18,
  481: 41,
  482: 25,
  483: 25,
  484: 28,
  485: 1,
  486: 17,
  488: 31,
  500: 41,
  501: 79,
  502: 38,
  503: 41,
  504: 102,
  505: 127,
  513: 127,
  600: 17,
  603: 21,
  604: 1,
  606: 31,
};

/** Q.850 cause to SIP status, RFC 3398 section 7.2.4.1. */
const TO_SIP: Readonly<Record<number, number>> = {
  1: 404,
  2: 404,
  3: 404,
  17: 486,
  18: 408,
  19: 480,
  20: 480,
  21: 403,
  22: 410,
  26: 404,
  27: 502,
  28: 484,
  29: 501,
  31: 480,
  34: 503,
  38: 503,
  41: 503,
  42: 503,
  47: 503,
  55: 403,
  57: 403,
  58: 503,
  65: 488,
  70: 488,
  79: 501,
  87: 403,
  88: 503,
  102: 504,
  111: 500,
  127: 500,
};

/** Causes that let a call move on to the next trunk, before any 18x (ENGINE E7). */
const MOVES_ON: ReadonlySet<number> = new Set([3, 34, 38, 41, 42, 44, 47, 58, 102]);

export const movesOn = (q850: number): boolean => MOVES_ON.has(q850);

/** How a trunk's far end failed a call; what the situation of a trace may say. */
export interface TrunkFailure {
  /** Q.850 value of a Reason header (RFC 3326) or of ISDN */
  q850?: number;
  /** SIP status of the answer */
  sip?: number;
  /** no response at all within the trunk's answer time */
  noResponse?: boolean;
  /** authentication refused twice */
  authentication?: boolean;
  /** it failed only after ringing (any 18x) */
  afterRinging?: boolean;
}

/** The cause of a failure: its Reason header, else by RFC 3398; our own timer is 102. */
export function causeOf(failure: TrunkFailure): Cause {
  if (failure.noResponse) return TIMER;
  if (failure.q850 !== undefined) return { q850: failure.q850, sip: failure.sip ?? TO_SIP[failure.q850] ?? 500 };
  const sip = failure.sip ?? (failure.authentication ? 403 : 500);
  return { q850: FROM_SIP[sip] ?? (sip >= 600 ? 21 : sip >= 500 ? 41 : 127), sip };
}

/** What a cause means, in words (ITU-T Q.850, table 1). */
const WORDS: Readonly<Record<number, string>> = {
  1: 'unallocated number',
  16: 'normal end',
  17: 'busy',
  18: 'no answer of the phone',
  19: 'nobody answers',
  20: 'not reachable',
  21: 'rejected',
  25: 'sent in a circle',
  27: 'out of order',
  28: 'number incomplete',
  31: 'ended without a reason',
  34: 'no channel free',
  38: 'network out of order',
  41: 'temporary failure',
  47: 'no room on the link',
  63: 'service not available',
  65: 'codec not agreed',
  88: 'incompatible',
  102: 'answered too late',
};

/** A cause with its words: `unallocated number (cause 1, SIP 404)`. */
/** A cause of Q.850 in words. */
export const causeWords = (q850: number): string => WORDS[q850] ?? 'ended';

export const causeInWords = ({ q850, sip }: Cause): string => `${causeWords(q850)} (cause ${q850}, SIP ${sip})`;
