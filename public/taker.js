// Hands on what the microphone brings, block by block (Web Audio, AudioWorklet).
class Taker extends AudioWorkletProcessor {
  process([[channel]]) {
    if (channel) this.port.postMessage(channel.slice());
    return true;
  }
}
registerProcessor('taker', Taker);
