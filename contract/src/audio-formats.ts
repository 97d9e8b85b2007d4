/**
 * The files that are taken as recordings, decided once: the shelf offers these endings, the server reads these containers, and
 * every other file is refused with the same sentence. Taken is what the server measures and the browser plays alike, without
 * a copy in another format: that leaves out AIFF, ALAC and 64-bit WAV.
 */

export interface AudioFormat {
  /** As it is named to the user. */
  readonly label: string;
  /** Endings of file names, without the dot. */
  readonly endings: readonly string[];
  /** A video of which only the sound is used. */
  readonly isVideo: boolean;
}

export const AUDIO_FORMATS = {
  wav: { label: 'WAV', endings: ['wav', 'wave'], isVideo: false },
  flac: { label: 'FLAC', endings: ['flac'], isVideo: false },
  ogg: { label: 'OGG (Vorbis, Opus)', endings: ['ogg', 'oga', 'opus'], isVideo: false },
  mp3: { label: 'MP3', endings: ['mp3'], isVideo: false },
  mp4: { label: 'M4A (AAC)', endings: ['m4a'], isVideo: false },
  mp4Video: { label: 'MP4', endings: ['mp4', 'mov'], isVideo: true },
  matroska: { label: 'WebM', endings: ['webm', 'mkv'], isVideo: true },
} as const satisfies Record<string, AudioFormat>;

export type AudioFormatId = keyof typeof AUDIO_FORMATS;

function labels(isVideo: boolean): string {
  const names = Object.values(AUDIO_FORMATS)
    .filter((format) => format.isVideo === isVideo)
    .map(({ label }) => label);
  return `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
}

/** 'WAV, FLAC, OGG (Vorbis, Opus), MP3 and M4A (AAC), and the sound of MP4 and WebM videos' */
export const TAKEN_FORMATS = `${labels(false)}, and the sound of ${labels(true)} videos`;

/** For a file chooser. */
export const TAKEN_ENDINGS: readonly string[] = Object.values(AUDIO_FORMATS).flatMap((f) =>
  f.endings.map((ending) => `.${ending}`),
);

/** Longest recording taken, s. */
export const MAX_DURATION_S = 30 * 60;
/** Most channels of a recording: front, side, back, centre and low, as films have. They are mixed down to two. */
export const MAX_CHANNELS = 8;
