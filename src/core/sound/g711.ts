/** Samples of A-law codes, -1 to 1 (ITU-T G.711, table 1; even bits are inverted). */
export const ALAW = Float32Array.from({ length: 256 }, (_, code) => {
  const c = code ^ 0x55;
  const exponent = (c >> 4) & 7;
  const mantissa = c & 15;
  const value = exponent === 0 ? mantissa * 16 + 8 : (mantissa * 16 + 264) << (exponent - 1);
  return (c & 0x80 ? value : -value) / 32_768;
});

/** Samples of µ-law codes, -1 to 1 (ITU-T G.711, table 2; all bits are inverted). */
export const MULAW = Float32Array.from({ length: 256 }, (_, code) => {
  const c = ~code & 0xff;
  const value = (((c & 15) * 8 + 132) << ((c >> 4) & 7)) - 132;
  return (c & 0x80 ? -value : value) / 32_768;
});
