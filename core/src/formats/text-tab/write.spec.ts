import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '../../guitar';
import {
  PLAIN_SONG,
  type Riff,
  type SongDocument,
  type Strum,
  PLAIN_RIFF,
  NO_MARKS,
  PLAIN_STRUM,
  PLAIN_SECTION,
  type Marks,
} from '../../riff';
import { writeRiffTab, writeTextTab } from './write';

function strum(
  startTicks: number,
  frets: readonly (readonly [number, number])[],
  marks: Partial<Strum> = {},
): Strum {
  return {
    ...PLAIN_STRUM,
    id: String(startTicks),
    startTicks,
    durationTicks: 480,
    frets: frets.map(([string, fret]) => ({ string, fret })),
    trust: 'checked',
    ...marks,
  };
}

const RIFF: Riff = {
  id: 'r',
  ...PLAIN_RIFF,
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
      ...PLAIN_SONG,
      title: 'Song',
      artist: 'Band',
      key: { tonic: 'E', mode: 'minor' },
      referenceOffsetCents: -22.4,
      grid: {
        beatsS: [0, 1, 2, 3, 4, 5, 6, 7, 8],
        bars: [
          { beat: 0, beats: 4, unit: 4 },
          { beat: 4, beats: 4, unit: 4 },
        ],
      },
      riffs: [RIFF],
      sections: [
        { id: 's', name: 'Verse', riffId: 'r', startBar: 1, passes: 1, transpose: 2, ...PLAIN_SECTION },
      ],
    };
    const text = writeTextTab(document);
    expect(text).toContain(
      'Song / Band\nTuning: Standard (E A D G B E, low to high)\nTempo: 60 bpm, 4/4\nKey: E minor\n',
    );
    expect(text).toContain('Recording: −22 cents from A = 440 Hz');
    expect(writeTextTab({ ...document, referenceOffsetCents: 1 })).toContain('Recording: +1 cent from A');
    expect(text).toContain('0:04.0  Verse: A (+2) x1');
    expect(text.endsWith('\n')).toBe(true);
  });

  const marked = (changes: Partial<Strum>, ...more: Strum[]): string[] =>
    writeRiffTab(
      { ...RIFF, strums: [strum(0, [[6, 5]]), strum(960, [[6, 7]], changes), ...more] },
      STANDARD_TUNING,
      null,
    );
  const low = (lines: readonly string[]): string => lines.find((l) => l.startsWith('E|-5')) ?? '';

  it.each<[string, Partial<Marks>, string]>([
    ['a slide', { join: 'slide' }, '5------/7'],
    ['a hammer-on', { join: 'hammer' }, '5------h7'],
    ['a tie', { join: 'tie' }, '5------(7)'],
    ['a slide from below', { slideIn: 'below' }, '5------s7'],
    ['a slide down and away', { slideOut: 'down' }, '5-------7\\'],
    ['a bend by a semitone', { bendCents: 100 }, '5-------7b½'],
    ['vibrato', { vibrato: true }, '5-------7~'],
    ['a natural harmonic', { harmonic: 'natural' }, '5------<7>'],
  ])('writes %s at its fret', (_, marks, expected) => {
    expect(low(marked({ marks: { ...NO_MARKS, ...marks } }))).toContain(expected);
  });

  it.each<[string, Partial<Strum>, string]>([
    ['an accent', { marks: { ...NO_MARKS, accent: true } }, '>'],
    ['a short strum', { marks: { ...NO_MARKS, length: 'short' } }, '.'],
    ['let ring', { marks: { ...NO_MARKS, length: 'ring' } }, 'lr'],
    ['a pinch harmonic', { marks: { ...NO_MARKS, harmonic: 'pinch' } }, 'PH'],
    ['a dive', { marks: { ...NO_MARKS, whammyBar: 'dive' } }, 'vv'],
    ['a rest', { rest: true }, 'r'],
  ])('writes %s above the strings', (_, changes, expected) => {
    const above = marked(changes)[1];
    expect(above.trim()).toBe(expected);
    // Over the second quarter of four eighths of four characters: label, bar line and lead are three.
    expect(above.indexOf(expected)).toBe(3 + 2 * 4);
  });

  it('pulls off where the fret falls, and writes directions only where one was set', () => {
    const pulled = { marks: { ...NO_MARKS, join: 'hammer' as const } };
    expect(low(marked({}, strum(1440, [[6, 5]], pulled)))).toContain('7--p5');
    const directed = marked({ marks: { ...NO_MARKS, stroke: 'up' } });
    expect(directed.at(-3)?.trim()).toBe('d       u');
    expect(marked({}).some((l) => l.trim() === 'd       d')).toBe(false);
  });

  it('writes a variation behind its riff, with the passes that play it, remarks and the second guitar', () => {
    const variation = {
      id: 'v',
      name: 'early end',
      fromTicks: 0,
      toTicks: 3840,
      strums: [RIFF.strums[0]],
      guitar2: [],
    };
    const song: SongDocument = {
      ...PLAIN_SONG,
      title: 'T',
      artist: '',
      tuning: STANDARD_TUNING,
      guitar2: { ...STANDARD_TUNING, capo: 2 },
      key: null,
      referenceOffsetCents: 0,
      grid: { beatsS: [0, 1, 2, 3, 4], bars: [{ beat: 0, beats: 4, unit: 4 }] },
      riffs: [
        {
          ...RIFF,
          variations: [variation],
          barNotes: [{ bar: 0, text: 'slide?', todo: true }],
          guitar2: [strum(0, [[1, 5]])],
        },
      ],
      sections: [
        {
          ...PLAIN_SECTION,
          ...{ id: 's', name: 'Verse', riffId: 'r', startBar: 0, passes: 1, transpose: 0 },
          tone: 'clean',
          answers: [{ pass: 0, variationId: 'v' }],
        },
      ],
    };
    const tab = writeTextTab(song);
    expect(tab).toContain('Guitar 2: Standard, capo 2');
    expect(tab).toContain('Verse: A x1, clean');
    expect(tab).toContain('Main riff, guitar 1 (1 bar)\n  Bar 1: to do: slide?');
    expect(tab).toContain('Main riff, early end (pass 1 of Verse)');
    expect(tab).toContain('Main riff, guitar 2 (1 bar)');
    expect(tab).toContain('PM = palm mute, x = dead stroke');
  });

  const song = (riff: Riff, changes: Partial<SongDocument> = {}): SongDocument => ({
    ...PLAIN_SONG,
    grid: {
      beatsS: Array.from({ length: 33 }, (_, i) => i / 2),
      bars: Array.from({ length: 8 }, (_, b) => ({ beat: 4 * b, beats: 4, unit: 4 as const })),
    },
    riffs: [riff],
    ...changes,
  });
  const section = { ...PLAIN_SECTION, name: 'Verse', riffId: 'r', startBar: 0, passes: 1, transpose: 0 };
  const twoBars: Riff = {
    ...RIFF,
    bars: [RIFF.bars[0], RIFF.bars[0]],
    strums: [...RIFF.strums, strum(3840, [[6, 5]], { note: 'hard pick' })],
  };

  it('can be played from alone: bar numbers, parts, notes, what an ending replaces', () => {
    const ending = { id: 'v', name: 'Ending 2', fromTicks: 3840, toTicks: 7680, strums: [], guitar2: [] };
    const groups = [{ name: 'turn', startBar: 1, bars: 1 }];
    const tab = writeTextTab(song({ ...twoBars, groups, variations: [ending] }));
    expect(tab).toContain('  Bar 2: turn\n  Bar 2, beat 1: hard pick\n');
    expect(tab).toContain('Main riff, Ending 2, in place of bar 2');
    expect(tab.split('\n').filter((l) => /^ *1 +2$/.test(l))).toHaveLength(1);
  });

  it('writes a moved riff with its frets, and says where the neck ends', () => {
    const sections = [2, 20].map((transpose, i) => ({
      ...{ ...section, id: String(i), name: `Verse ${i + 1}` },
      transpose,
    }));
    const tab = writeTextTab(song(RIFF, { sections }));
    expect(tab).toContain('Main riff, 2 frets up (Verse 1)\n\n   F#5');
    expect(tab).toContain('A|-4-------4---4---14------x');
    expect(tab).toContain('Main riff, 20 frets up (Verse 2): the neck ends there');
  });

  it('writes a variation that is played at another height with its frets, and its notes', () => {
    const ending = {
      ...{ id: 'e', name: 'Ending 2', fromTicks: 0, toTicks: 3840, guitar2: [] },
      strums: [{ ...strum(0, [[6, 3]]), note: 'let it ring' }],
    };
    const riff = { ...RIFF, variations: [ending] };
    const moved = { ...section, id: 'm', transpose: 2, answers: [{ pass: 0, variationId: 'e' }] };
    const tab = writeTextTab(song(riff, { sections: [moved] }));
    expect(tab).toMatch(/Main riff, Ending 2 \(pass 1 of .*\)\n {2}Bar 1, beat 1: let it ring\n/);
    const [, up] = tab.split('Main riff, Ending 2, 2 frets up (pass 1 of');
    expect(up.split('\n').filter((line) => line.startsWith('E|'))[1]).toMatch(/^E\|-5-+\|$/);
  });

  it('names neighbours with long names, one over the other', () => {
    const octave = (ticks: number, fret: number): Strum =>
      strum(ticks, [
        [6, fret],
        [4, fret + 2],
      ]);
    const lines = writeRiffTab({ ...RIFF, strums: [octave(0, 5), octave(240, 3)] }, STANDARD_TUNING, null);
    expect(lines.slice(0, 2).map((l) => l.trim())).toEqual(['G octave', 'A octave']);
  });

  it('breaks a bar that is longer than a line at a beat', () => {
    const mixed = { ...RIFF, strums: [0, 320, 640, 960, 1200, 2880].map((t) => strum(t, [[6, 12]])) };
    const lines = writeRiffTab(mixed, STANDARD_TUNING, null);
    expect(Math.max(...lines.map((l) => l.length))).toBeLessThanOrEqual(104);
    const low = lines.filter((l) => l.startsWith('E|') && l.includes('12'));
    expect(low.length).toBeGreaterThan(1);
    expect(low.join('').match(/12/g)).toHaveLength(6);
  });

  it('leaves out a second guitar that plays nothing', () => {
    expect(writeTextTab(song(RIFF, { guitar2: STANDARD_TUNING }))).not.toContain('uitar 2');
  });
});
