/** Ways to play a strum, off the main thread: the search walks over the whole riff. */
import { rankFingerings } from '@wild-needle/core/guitar';
import type { WaysAnswer, WaysTask } from './ways-client';

addEventListener('message', ({ data }: MessageEvent<WaysTask>) => {
  const { heard } = data;
  const ways = rankFingerings(data.riff, data.index, {
    tuning: data.tuning,
    ownShapes: data.ownShapes,
    alternatives: data.alternatives,
    heard: heard && ((midi) => heard.probability[midi - heard.firstMidi] ?? 0),
  });
  postMessage({ id: data.id, ways } satisfies WaysAnswer);
});
