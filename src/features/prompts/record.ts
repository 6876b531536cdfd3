/* Recording through Web Audio: samples as they come from the microphone, as a WAV file of 16 bits. */

/** Begins to record; `stop` ends it and gives what was recorded. Throws when there is no microphone or it is not allowed. */
export async function record(): Promise<{ stop: () => Promise<Blob> }> {
  const stream = await navigator.mediaDevices.getUserMedia({ audio: { channelCount: 1 } });
  const context = new AudioContext();
  await context.audioWorklet.addModule('/taker.js');
  const parts: Float32Array[] = [];
  const taker = new AudioWorkletNode(context, 'taker');
  taker.port.onmessage = ({ data }: MessageEvent<Float32Array>) => parts.push(data);
  context.createMediaStreamSource(stream).connect(taker);
  const { sampleRate } = context;
  return {
    stop: async () => {
      for (const track of stream.getTracks()) track.stop();
      if (context.state !== 'closed') await context.close();
      return wavOf(parts, sampleRate);
    },
  };
}

function wavOf(parts: readonly Float32Array[], rate: number): Blob {
  const length = parts.reduce((sum, p) => sum + p.length, 0);
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
  let at = 44;
  for (const part of parts)
    for (const s of part) {
      view.setInt16(at, Math.round(Math.max(-1, Math.min(1, s)) * 32_767), true);
      at += 2;
    }
  return new Blob([view.buffer], { type: 'audio/wav' });
}
