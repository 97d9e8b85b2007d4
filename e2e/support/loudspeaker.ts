/** Listens in on everything that reaches the loudspeaker. */
import type { Page } from '@playwright/test';

export interface Loudspeaker {
  /** Seconds on the clock of the sound device: it stands still when the machine does, and so does the music. */
  clockS(): Promise<number>;
  /** Until so many seconds of sound are over. */
  listenFor(seconds: number): Promise<void>;
  /** RMS of the last tenth of a second, full scale = 1. */
  level(): Promise<number>;
  /** What the loudspeaker gets for so many seconds, mean of both ears. */
  record(seconds: number): Promise<{ readonly samples: Float32Array; readonly rate: number }>;
  /** Amplitude of a tone in the mean of both ears, dB against full scale. */
  toneDb(freqHz: number): Promise<number>;
}

const FFT_SIZE = 4096;

/** Must be called before the page is opened. */
export async function listenIn(page: Page): Promise<Loudspeaker> {
  await page.addInitScript((fftSize) => {
    // eslint-disable-next-line @typescript-eslint/unbound-method -- called with its own `this` below
    const connect = AudioNode.prototype.connect as (this: AudioNode, target: AudioNode) => AudioNode;
    AudioNode.prototype.connect = function (this: AudioNode, target: AudioNode): AudioNode {
      if (target instanceof AudioDestinationNode) {
        const ear = new AnalyserNode(this.context, { fftSize, smoothingTimeConstant: 0 });
        connect.call(this, ear);
        Object.assign(globalThis, { ear, earSource: this });
      }
      return connect.call(this, target);
    } as typeof AudioNode.prototype.connect;
  }, FFT_SIZE);
  const clockS = (): Promise<number> =>
    page.evaluate(() => (globalThis as unknown as { ear: AnalyserNode }).ear.context.currentTime);
  return {
    clockS,
    listenFor: async (seconds) => {
      const endS = (await clockS()) + seconds;
      await page.waitForFunction(
        (untilS) => (globalThis as unknown as { ear: AnalyserNode }).ear.context.currentTime >= untilS,
        endS,
      );
    },
    level: () =>
      page.evaluate(() => {
        const { ear } = globalThis as unknown as { ear: AnalyserNode };
        const samples = new Float32Array(ear.fftSize);
        ear.getFloatTimeDomainData(samples);
        return Math.sqrt(samples.reduce((s, v) => s + v * v, 0) / samples.length);
      }),
    // The page's security policy lets no worklet of the test's own in; what it replaces still takes every sample.
    /* eslint-disable @typescript-eslint/no-deprecated */
    record: async (seconds) => {
      const { text, rate } = await page.evaluate(async (lengthS) => {
        const { ear, earSource } = globalThis as unknown as { ear: AnalyserNode; earSource: AudioNode };
        const { sampleRate } = ear.context;
        const taken: Float32Array[] = [];
        const recorder = (ear.context as AudioContext).createScriptProcessor(4096, 2, 1);
        const isFull = new Promise<void>((resolve) => {
          recorder.onaudioprocess = ({ inputBuffer: heard }) => {
            const [left, right] = [heard.getChannelData(0), heard.getChannelData(1)];
            taken.push(left.map((v, n) => (v + right[n]) / 2));
            if (taken.length * 4096 >= lengthS * sampleRate) resolve();
          };
        });
        earSource.connect(recorder).connect(new MediaStreamAudioDestinationNode(ear.context as AudioContext));
        await isFull;
        recorder.onaudioprocess = null;
        recorder.disconnect();
        const all = new Uint8Array(await new Blob(taken as unknown as BlobPart[]).arrayBuffer());
        let bytes = '';
        for (let at = 0; at < all.length; at += 0x8000)
          bytes += String.fromCharCode(...all.subarray(at, at + 0x8000));
        return { text: btoa(bytes), rate: sampleRate };
      }, seconds);
      return { samples: new Float32Array(new Uint8Array(Buffer.from(text, 'base64')).buffer), rate };
    },
    /* eslint-enable @typescript-eslint/no-deprecated */
    toneDb: (freqHz) =>
      page.evaluate((hz) => {
        const { ear } = globalThis as unknown as { ear: AnalyserNode };
        const bins = new Float32Array(ear.frequencyBinCount);
        ear.getFloatFrequencyData(bins);
        const bin = Math.round((hz * ear.fftSize) / ear.context.sampleRate);
        return Math.max(...bins.slice(bin - 1, bin + 2));
      }, freqHz),
  };
}
