/** A closer look at moments of a held sound: where its energy stands on the stage, and which notes sound. */
import { panorama, resample } from '../dsp';
import { ANALYSIS_SAMPLE_RATE, hearNotes, splitStereo, type HeardNotes, type NoteSpan } from '../mir';
import type { HeldSound } from './held-sound';

/** Samples to each side of a moment that the stage is drawn from. */
const LOOK = 4096;
/** Sound before and after a strum that the low-pass of the resampler settles in. */
const NOTE_MARGIN_S = 0.02;
/** More of a strum than this is not read, see `chord-spectrum.ts` of mir. */
const NOTE_MOST_S = 0.45;

/** Shares of the energy from left to right at a moment, see `panorama`. */
export function stageAt(sound: HeldSound, atS: number): Float32Array {
  const centre = Math.round(atS * sound.sampleRate);
  const from = Math.max(0, centre - LOOK);
  return panorama(sound.cut(from, centre + LOOK), sound.sampleRate, centre - from);
}

/** Which notes sound in places where the same is played: the mean over them; null for no place. */
export function notesAt(
  sound: HeldSound,
  spans: readonly NoteSpan[],
  offsetCents: number,
): HeardNotes | null {
  const { sampleRate } = sound;
  const parts = spans.map(({ startS, endS }) => {
    const endAt = Math.min(endS, startS + NOTE_MOST_S);
    const from = Math.max(0, Math.round((startS - NOTE_MARGIN_S) * sampleRate));
    const channels = sound
      .cut(from, Math.round((endAt + NOTE_MARGIN_S) * sampleRate))
      .map((c) => resample(c, sampleRate, ANALYSIS_SAMPLE_RATE));
    const span = { startS: startS - from / sampleRate, endS: endAt - from / sampleRate };
    const midSide = splitStereo({ channels, sampleRate: ANALYSIS_SAMPLE_RATE });
    return hearNotes(midSide, ANALYSIS_SAMPLE_RATE, [span], offsetCents);
  });
  if (parts.length === 0) return null;
  const mean = (pick: (part: HeardNotes) => Float32Array): Float32Array =>
    pick(parts[0]).map((_, i) => parts.reduce((sum, part) => sum + pick(part)[i], 0) / parts.length);
  return { probability: mean((p) => p.probability), level: mean((p) => p.level) };
}
