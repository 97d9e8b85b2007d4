/** What an imported file is, and its outline for drawing. */
import { peakEnvelope } from '@wild-needle/core/dsp';
import { ANALYSIS_SAMPLE_RATE } from '@wild-needle/core/mir';
import { decodeAudio } from './decode';

export interface AudioFacts {
  readonly durationS: number;
  readonly codec: string;
  readonly channels: number;
  readonly sampleRate: number;
  /** One byte per value, see ENVELOPE_RATE of core. */
  readonly envelope: Uint8Array;
}

/** Throws an AudioProblem for what can't be used. */
export async function inspectFile(path: string): Promise<AudioFacts> {
  const audio = await decodeAudio(path, ANALYSIS_SAMPLE_RATE);
  const envelope = peakEnvelope(audio.channels, audio.sampleRate);
  return {
    durationS: audio.channels[0].length / audio.sampleRate,
    codec: audio.codec,
    channels: audio.channels.length,
    sampleRate: audio.originalSampleRate,
    envelope,
  };
}
