/** Seeded randomness: the same seed draws the same values everywhere (ARCHITECTURE principle 12). */
import { uniformBigInt } from 'pure-rand/distribution/uniformBigInt';
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

export interface Random {
  /** a whole number of 0 to `below - 1` */
  whole(below: number): number;
  /** the same for numbers of any size */
  big(below: bigint): bigint;
  /** a fraction of 0 (included) to 1 (excluded), in steps of 2^-53 */
  fraction(): number;
}

/** A source of random values from a whole-number seed (xoroshiro128+). */
export function randomFrom(seed: number): Random {
  const generator = xoroshiro128plus(seed | 0);
  return {
    whole: (below) => Math.floor(uniformFloat64(generator) * below),
    big: (below) => uniformBigInt(generator, 0n, below - 1n),
    fraction: () => uniformFloat64(generator),
  };
}
