/** A tone as a WAV file: 16 bits, one channel, at half of full scale. */
export function toneWav(seconds: number, hertz = 440, rate = 16_000): Uint8Array {
  const length = Math.round(seconds * rate);
  const view = new DataView(new ArrayBuffer(44 + length * 2));
  const text = (at: number, value: string) => [...value].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, 36 + length * 2, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * 2, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  text(36, 'data');
  view.setUint32(40, length * 2, true);
  for (let i = 0; i < length; i++)
    view.setInt16(44 + i * 2, Math.round(16_000 * Math.sin((2 * Math.PI * hertz * i) / rate)), true);
  return new Uint8Array(view.buffer);
}
