/** What is wrong with a file, with a sentence for the user that says what would work. */
import { MAX_DURATION_S, TAKEN_FORMATS, type AudioProblemCode } from '@wild-needle/contract';

export class AudioProblem extends Error {
  constructor(
    readonly code: AudioProblemCode,
    message: string,
  ) {
    super(message);
    this.name = 'AudioProblem';
  }
}

export function notAudio(): AudioProblem {
  return new AudioProblem('not-audio', `This file is not audio we can read. These work: ${TAKEN_FORMATS}.`);
}

export function cutOff(what: string): AudioProblem {
  return new AudioProblem('cut-off', `This file is cut off: ${what}. Copy or download it again.`);
}

export function tooLong(durationS: number): AudioProblem {
  return new AudioProblem(
    'too-long',
    `This recording is ${Math.round(durationS / 60)} minutes long; up to ${MAX_DURATION_S / 60} minutes work. Cut out the song and try again.`,
  );
}

export function tooManyChannels(count: number | null): AudioProblem {
  return new AudioProblem(
    'too-many-channels',
    `This recording has ${count ?? 'very many'} channels; up to eight work. Mix it down to stereo and try again.`,
  );
}

export function tooLarge(): AudioProblem {
  return new AudioProblem(
    'too-large',
    'This file is larger than 500 MB. Export it as FLAC or MP3, or cut out the song.',
  );
}
