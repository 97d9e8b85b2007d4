/** The written tab as a sound file, by the plucked strings of the core. */
import { createRequire } from 'node:module';
import type * as Wavefile from 'wavefile';
import { performDocument, type SongDocument } from '@wild-needle/core/riff';
import { createTabPlayer } from '@wild-needle/core/synth';
import { toInt16 } from '@wild-needle/core/units';

const { WaveFile } = createRequire(import.meta.url)('wavefile') as typeof Wavefile;

const SAMPLE_RATE = 44_100;
/** Strings ring on after the last stroke. */
const RING_S = 2;
const SEED = 1;

/** 16 bits, one channel. Throws a RangeError where nothing sounds. */
export function tabSound(document: SongDocument): Uint8Array {
  const endS = Math.max(0, ...performDocument(document).map((strum) => strum.endS));
  if (endS === 0) throw new RangeError('Nothing is written that a section plays: the tab is silent');
  const tab = createTabPlayer(document, { sampleRate: SAMPLE_RATE, seed: SEED });
  const wav = new WaveFile();
  wav.fromScratch(1, SAMPLE_RATE, '16', toInt16(tab.render(0, Math.ceil((endS + RING_S) * SAMPLE_RATE))));
  return wav.toBuffer();
}
