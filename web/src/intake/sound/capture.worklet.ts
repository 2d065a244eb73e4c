/** Hands every block of samples of the microphone to the page; runs where sound is worked on. */
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: typeof AudioWorkletProcessor): void;

registerProcessor(
  'capture',
  class extends AudioWorkletProcessor {
    process(inputs: Float32Array[][]): boolean {
      const samples = inputs[0]?.[0];
      if (samples) this.port.postMessage(samples.slice());
      return true;
    }
  },
);
