import { describe, expect, it } from 'vitest';
import { PLAIN_RIFF, PLAIN_SONG, PLAIN_STRUM, type SongDocument } from '../riff';
import { chordBoxes } from './chord-boxes';

const song = (...shapes: (readonly [string: number, fret: number])[][]): SongDocument => ({
  ...PLAIN_SONG,
  riffs: [
    {
      ...{ ...PLAIN_RIFF, id: 'a', letter: 'A', name: 'A', bars: [{ beats: 4, unit: 4 }] },
      strums: shapes.map((frets, i) => ({
        ...PLAIN_STRUM,
        id: `s${i}`,
        startTicks: i * 480,
        durationTicks: 480,
        frets: frets.map(([string, fret]) => ({ string, fret })),
        trust: 'heard' as const,
      })),
    },
  ],
});

describe('chord boxes', () => {
  // A power chord on the sixth string: first finger on the root, ring finger and little finger two frets up (common practice).
  it('show each shape once, with its fingers and its quiet strings', () => {
    const boxes = chordBoxes(
      song(
        [
          [6, 5],
          [5, 7],
          [4, 7],
        ],
        [
          [6, 5],
          [5, 7],
          [4, 7],
        ],
        [
          [6, 0],
          [5, 2],
        ],
      ),
      null,
    );
    expect(boxes.map((b) => b.name)).toEqual(['A5', 'E5']);
    expect(boxes[0]).toMatchObject({ fromFret: 5, frets: 4, open: [], quiet: [3, 2, 1] });
    expect(boxes[0].dots.map((d) => d.finger)).toEqual([1, 3, 4]);
    expect(boxes[1]).toMatchObject({ fromFret: 1, open: [6] });
  });

  it('are wide enough for a stretch, and leave out single notes', () => {
    const boxes = chordBoxes(
      song(
        [
          [6, 5],
          [5, 10],
        ],
        [[6, 3]],
      ),
      null,
    );
    expect(boxes).toHaveLength(1);
    expect(boxes[0]).toMatchObject({ fromFret: 5, frets: 6 });
  });
});
