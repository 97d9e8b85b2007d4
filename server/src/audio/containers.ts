/**
 * Which files are opened at all. ffmpeg would read some hundred formats, among them playlists that name other files of this
 * computer or of the network; only these demuxers are let near a file, and none of them opens another one.
 */
import type { AudioFormatId } from '@wild-needle/contract';

interface Container {
  /** Name of the demuxer, as the format whitelist and `-f` take it. */
  readonly demuxer: string;
  /** Options of the demuxer. */
  readonly options: readonly string[];
  /** Codecs that Chromium plays from this container, tried with its `decodeAudioData`. */
  readonly codecs: RegExp;
}

const PCM = 'pcm_(u8|s16le|s24le|s32le|f32le|alaw|mulaw)';
const IN_VIDEOS = new RegExp(`^(aac|mp3(float)?|flac|opus|vorbis|${PCM}|pcm_s(16|24)be)$`);
/** A track of a QuickTime file may lie in another file, named in its data reference; it is never followed. */
const MOV: Container = { demuxer: 'mov', options: ['-enable_drefs', '0'], codecs: IN_VIDEOS };

export const CONTAINERS: Record<AudioFormatId, Container> = {
  wav: { demuxer: 'wav', options: [], codecs: new RegExp(`^${PCM}$`) },
  flac: { demuxer: 'flac', options: [], codecs: /^flac$/ },
  ogg: { demuxer: 'ogg', options: [], codecs: /^(vorbis|opus|flac)$/ },
  mp3: { demuxer: 'mp3', options: [], codecs: /^mp3(float)?$/ },
  mp4: MOV,
  mp4Video: MOV,
  matroska: { demuxer: 'matroska', options: [], codecs: IN_VIDEOS },
};

const ALL = Object.values(CONTAINERS);

/** For ffmpeg's `-format_whitelist`. */
export const FORMAT_WHITELIST = [...new Set(ALL.map(({ demuxer }) => demuxer))].join(',');

/** `names` as ffprobe gives them, 'mov,mp4,m4a,3gp,3g2,mj2'; null for what is not taken. */
export function containerOf(names: string, codec: string): Container | null {
  const all = names.split(',');
  return ALL.find(({ demuxer, codecs }) => all.includes(demuxer) && codecs.test(codec)) ?? null;
}

/** The one that the sound of a video is copied into: what it came in. */
export function videoContainerOf(
  names: string,
): { readonly name: string; readonly options: readonly string[] } | null {
  const all = names.split(',');
  const container = [CONTAINERS.mp4Video, CONTAINERS.matroska].find(({ demuxer }) => all.includes(demuxer));
  return container ? { name: container.demuxer, options: container.options } : null;
}
