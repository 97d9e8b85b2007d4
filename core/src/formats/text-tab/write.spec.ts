import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '../../guitar';
import { DOCUMENT_SCHEMA, type Riff, type SongDocument, type Strum } from '../../riff';
import { writeRiffTab, writeTextTab } from './write';

function strum(
  startTicks: number,
  frets: readonly (readonly [number, number])[],
  marks: Partial<Strum> = {},
): Strum {
  return {
    id: String(startTicks),
    startTicks,
    durationTicks: 480,
    frets: frets.map(([string, fret]) => ({ string, fret })),
    palmMute: false,
    dead: false,
    trust: 'checked',
    ...marks,
  };
}

const RIFF: Riff = {
  id: 'r',
  letter: 'A',
  name: 'Main riff',
  bars: [{ beats: 4, unit: 4 }],
  strums: [
    strum(0, [
      [6, 0],
      [5, 2],
    ]),
    strum(
      960,
      [
        [6, 0],
        [5, 2],
      ],
      { palmMute: true },
    ),
    strum(
      1440,
      [
        [6, 0],
        [5, 2],
      ],
      { palmMute: true },
    ),
    strum(1920, [
      [6, 10],
      [5, 12],
    ]),
    strum(2880, [], { dead: true }),
  ],
};

describe('text tab', () => {
  it('writes strings, counts, names, palm mutes and dead strokes', () => {
    expect(writeRiffTab(RIFF, STANDARD_TUNING, { tonic: 'E', mode: 'minor' })).toEqual([
      '   E5              D5',
      '           PM----|',
      'E|-------------------------x-------|',
      'B|-------------------------x-------|',
      'G|-------------------------x-------|',
      'D|-------------------------x-------|',
      'A|-2-------2---2---12------x-------|',
      'E|-0-------0---0---10------x-------|',
      '   1   &   2   &   3   &   4   &',
      '',
    ]);
  });

  it('keeps all string lines of a riff equally long', () => {
    const lines = writeRiffTab(RIFF, STANDARD_TUNING, null).filter((l) => l.includes('|-'));
    expect(new Set(lines.map((l) => l.length)).size).toBe(1);
  });

  it('widens a bar that has triplets', () => {
    const triplets = { ...RIFF, strums: [strum(0, [[6, 0]]), strum(320, [[6, 3]]), strum(640, [[6, 5]])] };
    const counts = writeRiffTab(triplets, STANDARD_TUNING, null).find((l) => l.includes('trip'));
    expect(counts?.trim().split(/\s+/).slice(0, 4)).toEqual(['1', 'triplet', '2', 'triplet']);
  });

  it('heads the song with tuning, pitch and the order of play', () => {
    const document: SongDocument = {
      schema: DOCUMENT_SCHEMA,
      title: 'Song',
      artist: 'Band',
      tuning: STANDARD_TUNING,
      key: { tonic: 'E', mode: 'minor' },
      referenceOffsetCents: -22.4,
      recordings: [],
      tuneTo: 'concert',
      loops: [],
      grid: {
        beatsS: [0, 1, 2, 3, 4, 5, 6, 7, 8],
        bars: [
          { beat: 0, beats: 4, unit: 4 },
          { beat: 4, beats: 4, unit: 4 },
        ],
      },
      riffs: [RIFF],
      sections: [{ id: 's', name: 'Verse', riffId: 'r', startBar: 1, passes: 1, transpose: 2 }],
    };
    const text = writeTextTab(document);
    expect(text).toContain('Song / Band\nTuning: Standard (E A D G B E, low to high)\nKey: E minor\n');
    expect(text).toContain('Recording: −22 cents from A = 440 Hz');
    expect(text).toContain('0:04.0  Verse: A (+2) x1');
    expect(text.endsWith('\n')).toBe(true);
  });
});
