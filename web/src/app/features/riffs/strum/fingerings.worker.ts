/** Ways to play a strum, off the main thread: the search walks over the whole riff. */
import { rankFingerings } from '@wild-needle/core/guitar';
import type { FingeringsAnswer, FingeringsTask } from './fingerings-client';

addEventListener('message', ({ data }: MessageEvent<FingeringsTask>) => {
  const { heard } = data;
  const fingerings = rankFingerings(data.riff, data.index, {
    tuning: data.tuning,
    ownShapes: data.ownShapes,
    alternatives: data.alternatives,
    heard: heard && ((midi) => heard.probability[midi - heard.firstMidi] ?? 0),
  });
  postMessage({ id: data.id, fingerings } satisfies FingeringsAnswer);
});
