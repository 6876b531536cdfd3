export type Encoding = 'UTF-8' | 'UTF-16LE' | 'UTF-16BE';

export type Decoded = { ok: true; text: string; encoding: Encoding } | { ok: false; sentence: string };

const SAMPLE = 4096;

/**
 * Text from bytes: by its byte order mark, else UTF-16 where every other octet of the beginning is zero, else UTF-8. Anything
 * else is refused with the octet where it stops being UTF-8.
 */
export function decodeText(bytes: Uint8Array): Decoded {
  const encoding = encodingOf(bytes);
  if (encoding !== 'UTF-8' && bytes.length % 2 === 1)
    return { ok: false, sentence: `The file is ${encoding}, but its last character is cut in half.` };
  try {
    return { ok: true, text: new TextDecoder(encoding, { fatal: true }).decode(bytes), encoding };
  } catch {
    return {
      ok: false,
      sentence:
        encoding === 'UTF-8'
          ? `The file is neither UTF-8 nor UTF-16: octet ${firstBad(bytes) + 1} begins no character. Save it as “CSV UTF-8”.`
          : `The file is not whole ${encoding}.`,
    };
  }
}

/** Which encoding octets are in, by their beginning. */
export function encodingOf(bytes: Uint8Array): Encoding {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'UTF-16LE';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'UTF-16BE';
  const sample = bytes.subarray(0, SAMPLE);
  const zeros = [0, 0];
  sample.forEach((b, i) => {
    if (b === 0) zeros[i % 2]!++;
  });
  const enough = sample.length / 8;
  if (zeros[1]! > enough && zeros[0]! < zeros[1]! / 4) return 'UTF-16LE';
  if (zeros[0]! > enough && zeros[1]! < zeros[0]! / 4) return 'UTF-16BE';
  return 'UTF-8';
}

/** Where bytes stop being UTF-8, by halving. */
function firstBad(bytes: Uint8Array): number {
  let [good, bad] = [0, bytes.length];
  while (bad - good > 1) {
    const middle = (good + bad) >> 1;
    try {
      new TextDecoder('utf-8', { fatal: true }).decode(bytes.subarray(0, middle), { stream: true });
      good = middle;
    } catch {
      bad = middle;
    }
  }
  // A character may look well until its second octet is missing; it begins at its first.
  while (good > 0 && (bytes[good - 1]! & 0xc0) === 0xc0) good--;
  return good;
}
