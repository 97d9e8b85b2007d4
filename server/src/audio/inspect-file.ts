/** What an imported file is, and its outline for drawing; its samples are looked at as they come and not kept. */
import { PeakEnvelope } from '@wild-needle/core/dsp';
import { ANALYSIS_SAMPLE_RATE } from '@wild-needle/core/units';
import { readAudio, type FileTags } from './decode';

export interface InspectedAudio {
  readonly tags: FileTags;
  readonly durationS: number;
  readonly codec: string;
  readonly channels: number;
  readonly sampleRate: number;
  /** One byte per value, see ENVELOPE_RATE of core. */
  readonly envelope: Uint8Array;
}

/** Throws an AudioProblem for what can't be used, a ToolFailure when ffmpeg itself fails. */
export async function inspectFile(path: string): Promise<InspectedAudio> {
  const envelope = new PeakEnvelope(ANALYSIS_SAMPLE_RATE);
  const { originalSampleRate, ...facts } = await readAudio(path, ANALYSIS_SAMPLE_RATE, (part, channels) =>
    envelope.add(part, channels),
  );
  return { ...facts, sampleRate: originalSampleRate, envelope: envelope.bytes() };
}
