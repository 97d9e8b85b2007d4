/** Makes the take of nobody, off the main thread. */
import { simulatedTake } from '@wild-needle/core/live';

addEventListener('message', ({ data: sampleRate }: MessageEvent<number>) => {
  const samples = simulatedTake(sampleRate);
  postMessage(samples, { transfer: [samples.buffer] });
});
