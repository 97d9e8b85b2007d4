/** A riff in layers, for writing it down and for practising it step by step: the chords, then the strokes, then the mutes. */
import { strumNotes } from './strum';
import type { Tuning } from '../guitar';
import type { Riff, Strum } from './document';

export type Layer = 'chords' | 'strokes' | 'all';

/**
 * The riff with only what a layer shows. 'chords': one ringing strum for each change of chord; 'strokes': every strum
 * ringing, without dead ones, which are hit between the chords; 'all': as written.
 */
export function layerOf(riff: Riff, layer: Layer, tuning: Tuning): Riff {
  if (layer === 'all') return riff;
  const played = riff.strums.filter((s) => !s.dead).map((s): Strum => ({ ...s, palmMute: false }));
  if (layer === 'strokes') return { ...riff, strums: played };
  const strums: Strum[] = [];
  let sounding = '';
  for (const strum of played) {
    const notes = strumNotes(strum, tuning).join();
    if (notes === '' || notes === sounding) continue;
    sounding = notes;
    strums.push(strum);
  }
  return {
    ...riff,
    strums: strums.map((s, i) => ({
      ...s,
      durationTicks: Math.max(
        s.durationTicks,
        (strums[i + 1]?.startTicks ?? s.startTicks + s.durationTicks) - s.startTicks,
      ),
    })),
  };
}
