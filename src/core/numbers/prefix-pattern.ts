/*
 * The patterns by which a country's national prefix is told (a small part of ECMA-262 regular expressions: digits, `\d`,
 * `[…]`, groups, `|`, `?`, `{n}`, `{n,m}`, `$`), read digit by digit: what is known after some digits is all that matters for
 * any that follow. The first alternative that fits wins, as in ECMA-262; nothing has to follow a match.
 */

/** One step of a compiled pattern. */
type Instruction =
  { do: 'take'; mask: number } | { do: 'try'; to: readonly number[] } | { do: 'open' | 'close' | 'end' | 'match' };

/** One way in which the digits so far can fit: where it stands, and what its group has taken. */
interface Way {
  at: number;
  /** digits of the last group; null: it was not met */
  group: string | null;
  open: boolean;
}

/** What is known of a pattern after some digits. */
export interface PrefixState {
  /** ways that still run and would win over `found`, the stronger first */
  ways: readonly Way[];
  /** the match that stands unless one of them comes to its end: how many digits it took, and its group */
  found: { length: number; group: string | null } | null;
  length: number;
}

export interface PrefixPattern {
  start: PrefixState;
  /** whether a match always ends where its group does */
  groupEnds: boolean;
  /** the state after one more digit (0 to 9) */
  next(state: PrefixState, digit: number): PrefixState;
  /** the match when no digit follows; null: none */
  atEnd(state: PrefixState): PrefixState['found'];
}

/** A pattern prepared for reading digit by digit. Throws on what is outside the part that is known here. */
export function prefixPattern(pattern: string): PrefixPattern {
  const program = compiled(pattern);
  const follow = (ways: readonly Way[], found: PrefixState['found'], length: number): PrefixState => {
    const out: Way[] = [];
    const known = new Set<number>();
    /** Goes on without taking a digit; true when a match was come to, which ends what is weaker. */
    const reach = (way: Way): boolean => {
      const step = program[way.at]!;
      if (step.do === 'match') {
        found = { length, group: way.group };
        return true;
      }
      if (step.do === 'try') return step.to.some((at) => reach({ ...way, at }));
      if (step.do === 'open') return reach({ at: way.at + 1, group: '', open: true });
      if (step.do === 'close') return reach({ ...way, at: way.at + 1, open: false });
      // A weaker way at the same place can do nothing that the stronger does not.
      if (!known.has(way.at)) out.push(way);
      known.add(way.at);
      return false;
    };
    ways.some(reach);
    return { ways: out, found, length };
  };
  return {
    groupEnds: program.every((step, at) => step.do !== 'close' || !takesMore(program, at + 1)),
    start: follow([{ at: 0, group: null, open: false }], null, 0),
    next({ ways, found, length }, digit) {
      const on = ways.flatMap((way) => {
        const step = program[way.at]!;
        if (step.do !== 'take' || !(step.mask & (1 << digit))) return [];
        return [{ ...way, at: way.at + 1, group: way.open ? `${way.group}${digit}` : way.group }];
      });
      return follow(on, found, length + 1);
    },
    atEnd({ ways, found, length }) {
      const ended = ways.find((way) => program[way.at]!.do === 'end');
      return ended ? { length, group: ended.group } : found;
    },
  };
}

/** Whether a digit can be taken from here on before the match. */
function takesMore(program: readonly Instruction[], at: number): boolean {
  const step = program[at]!;
  if (step.do === 'try') return step.to.some((to) => takesMore(program, to));
  return step.do === 'take' || (step.do !== 'match' && step.do !== 'end' && takesMore(program, at + 1));
}

const ANY = 0x3ff;

function compiled(pattern: string): Instruction[] {
  const out: Instruction[] = [];
  const last = [...pattern.matchAll(/\((?!\?:)/g)].at(-1)?.index;
  let at = 0;
  const unknown = () => new Error(`national prefix pattern ${pattern}: nothing is known of what stands at ${at}`);

  const choice = (): void => {
    // Alternatives one after the other; a jump behind the last closes each.
    const heads: number[] = [];
    const jumps: { to: number[] }[] = [];
    out.push({ do: 'try', to: heads });
    for (;;) {
      heads.push(out.length);
      while (at < pattern.length && pattern[at] !== '|' && pattern[at] !== ')') item();
      const jump = { do: 'try' as const, to: [] as number[] };
      out.push(jump);
      jumps.push(jump);
      if (pattern[at] !== '|') break;
      at++;
    }
    for (const jump of jumps) jump.to.push(out.length);
  };
  const item = (): void => {
    const begin = at;
    const [least, most, after] = counted(begin);
    for (let i = 0; i < most; i++) {
      if (i >= least) {
        const skip = { do: 'try' as const, to: [out.length + 1] as number[] };
        out.push(skip);
        at = begin;
        atom();
        skip.to.push(out.length);
      } else {
        at = begin;
        atom();
      }
    }
    at = after;
  };
  /** How often the atom that begins at a place may stand, and where what counts it ends; the atom is read and put aside. */
  const counted = (begin: number): [number, number, number] => {
    const length = out.length;
    at = begin;
    atom();
    out.length = length;
    if (pattern[at] === '?') return [0, 1, at + 1];
    const count = /^\{(\d+)(?:,(\d+))?\}/.exec(pattern.slice(at));
    if (!count) return [1, 1, at];
    return [Number(count[1]), Number(count[2] ?? count[1]), at + count[0].length];
  };
  const atom = (): void => {
    const sign = pattern[at]!;
    if (sign >= '0' && sign <= '9') {
      out.push({ do: 'take', mask: 1 << Number(sign) });
      at++;
    } else if (pattern.startsWith('\\d', at)) {
      out.push({ do: 'take', mask: ANY });
      at += 2;
    } else if (sign === '[') {
      const end = pattern.indexOf(']', at);
      out.push({ do: 'take', mask: maskOf(pattern.slice(at + 1, end)) });
      at = end + 1;
    } else if (sign === '(') {
      // Only the last group is asked about.
      const plain = at !== last;
      at += pattern.startsWith('(?:', at) ? 3 : 1;
      if (!plain) out.push({ do: 'open' });
      choice();
      if (!plain) out.push({ do: 'close' });
      if (pattern[at++] !== ')') throw unknown();
    } else if (sign === '$') {
      out.push({ do: 'end' });
      at++;
    } else throw unknown();
  };
  choice();
  if (at < pattern.length) throw unknown();
  out.push({ do: 'match' });
  return out;
}

/** Digits of a bracket such as `2-579` as a mask. */
function maskOf(text: string): number {
  let mask = 0;
  for (const [, from, to] of text.matchAll(/(\d)(?:-(\d))?/g))
    for (let d = Number(from); d <= Number(to ?? from); d++) mask |= 1 << d;
  return mask;
}
