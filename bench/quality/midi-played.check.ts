/**
 * The MIDI file of a song, played by Debian's fluidsynth (a General MIDI synthesizer that knows nothing of this project) and heard by the
 * analysis: strums where the tab has them, with the tab's notes. Ringing chords alone: muted instruments of General MIDI are short.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { FORMATS } from '@wild-needle/core/formats';
import { listen } from '@wild-needle/core/mir';
import {
  performDocument,
  PLAIN_RIFF,
  PLAIN_SECTION,
  PLAIN_SONG,
  PLAIN_STRUM,
  type SongDocument,
} from '@wild-needle/core/riff';
import { readSound } from './read-sound';

const SOUNDFONT = '/usr/share/sounds/sf2/FluidR3_GM.sf2';
/** A stroke of the synthesizer is heard this near to where the file has it. */
const NEAR_S = 0.05;

/** Two bars of power chords, eight times, over a tempo that rises from 100 to 120. */
function song(): SongDocument {
  const bars = Array.from({ length: 16 }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 as const }));
  const beatsS = [0.5];
  for (let i = 0; i < 64; i++) beatsS.push(beatsS[i] + 60 / (100 + (20 * i) / 63));
  const roots = [0, 3, 5, 0, 7, 5];
  const strums = [0, 1920, 2880, 3840, 5760, 6720].map((startTicks, i) => ({
    ...PLAIN_STRUM,
    id: `s${i}`,
    startTicks,
    durationTicks: 960,
    frets: [
      { string: 6, fret: roots[i] },
      { string: 5, fret: roots[i] + 2 },
      { string: 4, fret: roots[i] + 2 },
    ],
    trust: 'heard' as const,
  }));
  return {
    ...PLAIN_SONG,
    title: 'Played',
    grid: { beatsS, bars },
    riffs: [
      {
        ...{ ...PLAIN_RIFF, id: 'a', letter: 'A', name: 'A', strums },
        bars: [bars[0], bars[0]].map(({ beats, unit }) => ({ beats, unit })),
      },
    ],
    sections: [
      { ...PLAIN_SECTION, id: '1', name: 'Verse', riffId: 'a', startBar: 0, passes: 8, transpose: 0 },
    ],
  };
}

describe('a MIDI file played by fluidsynth', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wn-midi-'));
  afterAll(() => rmSync(folder, { recursive: true }));

  it('is heard as it is written', async () => {
    const document = song();
    const [midi, wav] = ['song.mid', 'song.wav'].map((name) => join(folder, name));
    writeFileSync(midi, await FORMATS.find((f) => f.id === 'midi')!.write(document));
    const args = ['-ni', '-q', '-g', '0.6', '-R', '0', '-C', '0', '-r', '44100', '-F', wav, SOUNDFONT, midi];
    expect(spawnSync('fluidsynth', args).status).toBe(0);
    const { strums } = listen(readSound(wav));
    const played = performDocument(document);
    const found = played.map((p) => strums.find((s) => Math.abs(s.timeS - p.timeS) <= NEAR_S));
    const isSame = played.map((p, i) => {
      const wanted = p.notes.map((n) => n.midi).sort((a, b) => a - b);
      return found[i]?.midi.join() === wanted.join();
    });
    expect(found.filter(Boolean).length / played.length).toBeGreaterThanOrEqual(0.95);
    expect(isSame.filter(Boolean).length / played.length).toBeGreaterThanOrEqual(0.8);
  });
});
