import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyHabits } from './habits';
import { fingersOf, quietStrings } from './hand';
import { chooseHandPath, costsThrough, movement } from './hand-path';
import { handSpanMm } from './reach';
import { isOwnShape, placeOwnShape, shapeOf } from './shapes';
import { STANDARD_TUNING, soundingNotes, type StringFret, type Tuning } from './tuning';
import { findVoicings, type Voicing } from './voicing';
import { placesOf, rankFingerings, type Fingering } from './fingerings';

/** '6/3 5/5': string and fret. */
const grip = (text: string): StringFret[] =>
  text.split(' ').map((word) => {
    const [string, fret] = word.split('/').map(Number);
    return { string, fret };
  });
const text = (frets: readonly StringFret[]): string => frets.map((f) => `${f.string}/${f.fret}`).join(' ');
const DROP_D: Tuning = { name: 'drop-d', stringsMidi: [38, 45, 50, 55, 59, 64], capo: 0 };
const options = { tuning: STANDARD_TUNING, heard: null, ownShapes: [], alternatives: [] };
const kinds = (way: Fingering): string[] => way.reasons.map((r) => r.kind);

describe('ways to play a strum', () => {
  it('begin with the notes that are written, where the hand is', () => {
    const riff = [grip('6/3 5/5 4/5'), grip('6/5 5/7 4/7'), grip('6/3 5/5 4/5')];
    const ways = rankFingerings(riff, 1, options);
    expect(text(ways[0].frets)).toBe('6/5 5/7 4/7');
    expect(kinds(ways[0])).toEqual(expect.arrayContaining(['same-notes', 'nearest']));
    expect(ways.map((w) => text(w.frets))).toContain('5/0 4/2 3/2');
  });

  it('follow the riff up the neck', () => {
    const high = [grip('5/10 4/12'), grip('5/12 4/14'), grip('5/14 4/16')];
    const ways = rankFingerings([high[0], grip('6/15 5/17'), high[2]], 1, options);
    // G and D lie on the fifth string's tenth fret too, between what comes before and after.
    expect(text(ways[0].frets)).toBe('5/10 4/12');
  });

  it('reach the last fret, where a high note has no other place', () => {
    const [best] = rankFingerings([grip('2/24')], 0, options);
    expect([text(best.frets), best.notes]).toEqual(['1/19', [83]]);
    expect(rankFingerings([grip('1/22')], 0, options).map((w) => text(w.frets))).toEqual(['1/22']);
    const fifth = rankFingerings([grip('2/20 1/22')], 0, options).map((w) => text(w.frets));
    expect(fifth).toContain('3/24 1/22');
  });

  it('put what was heard before what is written', () => {
    const heardOctave = (midi: number): number => ({ 43: 0.95, 50: 0.95, 55: 0.97 })[midi] ?? 0.03;
    const [best, ...others] = rankFingerings([grip('6/3 5/5')], 0, { ...options, heard: heardOctave });
    expect(text(best.frets)).toBe('6/3 5/5 4/5');
    expect(best.reasons).toContainEqual({ kind: 'adds', midi: 55, heard: 0.97 });
    expect(best.fits).toBeGreaterThan(0.9);
    const written = others.find((w) => text(w.frets) === '6/3 5/5');
    expect(written?.fits).toBeLessThan(0.5);
  });

  it('say what a way leaves out, and keep the written one whatever was heard', () => {
    const onlyRoot = (midi: number): number => (midi === 43 ? 0.9 : 0.1);
    const ways = rankFingerings([grip('6/3 5/5')], 0, { ...options, heard: onlyRoot });
    expect(text(ways[0].frets)).toBe('6/3');
    expect(ways[0].reasons).toContainEqual({ kind: 'leaves-out', midi: 50, heard: 0.1 });
    expect(ways.map((w) => text(w.frets))).toContain('6/3 5/5');
  });

  it('offer what the strum was heard as besides, with its probability', () => {
    const ways = rankFingerings([grip('6/3 5/5')], 0, {
      ...options,
      alternatives: [{ midi: [43, 48], probability: 0.2 }],
    });
    const other = ways.find((w) => w.notes.join() === '43,48');
    expect(other?.reasons).toContainEqual({ kind: 'heard-as', probability: 0.2 });
  });

  it('prefer a shape that the player has, under its name', () => {
    const own = {
      id: 'o',
      name: 'Two open',
      notes: [
        { strings: 0, frets: 0 },
        { strings: 1, frets: -5 },
      ],
    };
    const plain = rankFingerings([grip('6/5 5/7')], 0, options).map((w) => text(w.frets));
    const offered = rankFingerings([grip('6/5 5/7')], 0, {
      ...options,
      ownShapes: [
        {
          ...own,
          notes: [
            { strings: 0, frets: 0 },
            { strings: 1, frets: 2 },
          ],
        },
      ],
    });
    expect(offered[0].reasons[0]).toEqual({ kind: 'own-shape', name: 'Two open' });
    expect(plain).toContain(text(offered[0].frets));
  });

  it('work with a capo and with seven and eight strings', () => {
    const capo = { ...STANDARD_TUNING, capo: 3 };
    const [low] = rankFingerings([grip('6/0 5/2')], 0, { ...options, tuning: capo });
    expect(low.notes).toEqual([43, 50]);
    const eight: Tuning = { name: 'custom', stringsMidi: [30, 35, 40, 45, 50, 55, 59, 64], capo: 0 };
    const [lowest] = rankFingerings([grip('8/0 7/2')], 0, { ...options, tuning: eight });
    expect(lowest.notes).toEqual([30, 37]);
  });

  it('keep a unison pair that is written, although no search finds it', () => {
    const unison: Tuning = { name: 'custom', stringsMidi: [40, 40, 50, 55, 59, 64], capo: 0 };
    const ways = rankFingerings([grip('6/0 5/0')], 0, { ...options, tuning: unison });
    expect(ways.map((w) => text(w.frets))).toContain('6/0 5/0');
  });

  it('are none for a strum without notes', () => {
    expect(rankFingerings([[]], 0, options)).toEqual([]);
  });
});

describe('the path through a riff', () => {
  const RIFFS = [
    { tuning: STANDARD_TUNING, byHand: ['6/0 5/2', '6/3 5/5', '6/5 5/7', '6/0 5/2', '5/2 4/4', '6/3 5/5'] },
    { tuning: STANDARD_TUNING, byHand: ['5/2 4/4 3/4', '6/0 5/2 4/2', '6/3 5/5 4/5', '6/2 5/4 4/4'] },
    { tuning: STANDARD_TUNING, byHand: ['6/8 5/10', '5/8 4/10', '6/6 5/8', '6/1 5/3'] },
    { tuning: DROP_D, byHand: ['6/0 5/0 4/0', '6/3 5/3 4/3', '6/5 5/5 4/5', '6/0 5/0 4/0', '5/5 4/7'] },
  ];

  it.each(RIFFS)('never costs more than a hand-made one: $byHand', ({ tuning, byHand }) => {
    const grips = byHand.map(grip);
    const layers = grips.map((g) => applyHabits(findVoicings(soundingNotes(tuning, g), tuning), tuning));
    const own = grips.map((g, k): Voicing => {
      const found = layers[k].find((v) => text(v.frets) === text(g));
      if (!found) throw new Error(`${text(g)} is no candidate`);
      return found;
    });
    const cost = own.reduce((sum, v, k) => sum + v.effort + (k > 0 ? movement(own[k - 1], v) : 0), 0);
    expect(chooseHandPath(layers).cost).toBeLessThanOrEqual(cost + 1e-9);
  });

  it('costs the same from both ends: the best through any layer is the best path', () => {
    const layers = RIFFS[0].byHand.map((g) =>
      findVoicings(soundingNotes(STANDARD_TUNING, grip(g)), STANDARD_TUNING),
    );
    const { cost } = chooseHandPath(layers);
    layers.forEach((_, k) => expect(Math.min(...costsThrough(layers, k))).toBeCloseTo(cost, 9));
  });
});

describe('the hand', () => {
  it.each([
    ['6/3 5/5', '1 3'],
    ['6/3 5/5 4/5', '1 3 4'],
    ['6/5 5/5 4/5', '1 1 1'],
    ['6/0 5/2', '0 1'],
    ['6/3 5/4', '1 2'],
    ['6/3 4/5', '1 3'],
    ['6/3 5/5 4/7', '1 3 4'],
    ['6/3 5/5 4/5 3/5', '1 3 3 3'],
    ['6/0 5/0', '0 0'],
  ])('takes %s with fingers %s', (frets, fingers) => {
    expect(
      fingersOf(grip(frets))
        ?.map((f) => f.finger)
        .join(' '),
    ).toBe(fingers);
  });

  it('does not reach what needs five fingers', () => {
    expect(fingersOf(grip('6/1 5/2 4/3 3/4 2/5'))).toBeNull();
  });

  it.each([
    ['6/3 5/5 4/5', '3 flat-finger, 2 flat-finger, 1 flat-finger'],
    ['6/3 4/5', '5 fingertip, 3 flat-finger, 2 flat-finger, 1 flat-finger'],
    ['5/3 4/5', '6 fingertip, 3 flat-finger, 2 flat-finger, 1 flat-finger'],
    ['4/5 3/7', '6 thumb, 5 fingertip, 2 flat-finger, 1 flat-finger'],
    ['6/0', '5 palm, 4 palm, 3 palm, 2 palm, 1 palm'],
  ])('keeps the other strings quiet around %s', (frets, quiet) => {
    expect(
      quietStrings(grip(frets), STANDARD_TUNING)
        .map((q) => `${q.string} ${q.by}`)
        .join(', '),
    ).toBe(quiet);
  });

  it('stretches less for the same frets up the neck, and not at all for one finger', () => {
    expect(handSpanMm(grip('6/1 5/3'))).toBeGreaterThan(handSpanMm(grip('6/10 5/12')));
    expect(handSpanMm(grip('6/1 5/3'))).toBeCloseTo(handSpanMm(grip('6/1 5/3'), 0, 647.7), 9);
    expect(handSpanMm(grip('6/5 5/5'))).toBe(0);
    expect(handSpanMm(grip('6/0 5/2'))).toBe(0);
  });
});

describe('own shapes', () => {
  it('are lifted from one place and put down at another', () => {
    const notes = shapeOf(grip('6/3 5/5 3/4'), STANDARD_TUNING);
    expect(notes).toEqual([
      { strings: 0, frets: 0, semitones: 0 },
      { strings: 1, frets: 2, semitones: 7 },
      { strings: 3, frets: 1, semitones: 16 },
    ]);
    const shape = { id: 's', name: 'S', notes: notes ?? [] };
    expect(placeOwnShape(shape, { string: 5, fret: 7 }, STANDARD_TUNING)).toEqual(grip('5/7 4/9 2/9'));
    expect(placeOwnShape(shape, { string: 3, fret: 7 }, STANDARD_TUNING)).toBeNull();
    expect(isOwnShape(shape, grip('5/7 4/9 2/9'), STANDARD_TUNING)).toBe(true);
    expect(isOwnShape(shape, grip('5/7 4/9'), STANDARD_TUNING)).toBe(false);
    expect(shapeOf([], STANDARD_TUNING)).toBeNull();
  });

  it('sound the same in another tuning, and fret by fret where only frets were kept', () => {
    const dropD = { ...STANDARD_TUNING, name: 'drop-d', stringsMidi: [38, 45, 50, 55, 59, 64] };
    const notes = shapeOf(grip('6/3 5/5 4/5'), STANDARD_TUNING) ?? [];
    const shape = { id: 's', name: 'S', notes };
    expect(placeOwnShape(shape, { string: 6, fret: 3 }, dropD)).toEqual(grip('6/3 5/3 4/3'));
    const older = { ...shape, notes: notes.map(({ strings, frets }) => ({ strings, frets })) };
    expect(placeOwnShape(older, { string: 6, fret: 3 }, dropD)).toEqual(grip('6/3 5/5 4/5'));
  });

  it('come back as they were from anywhere on the neck', () => {
    const place = fc.record({
      string: fc.integer({ min: 4, max: 6 }),
      fret: fc.integer({ min: 3, max: 12 }),
    });
    fc.assert(
      fc.property(place, place, (from, to) => {
        const pressed = [from, { string: from.string - 1, fret: from.fret + 2 }];
        const shape = { id: 's', name: 'S', notes: shapeOf(pressed, STANDARD_TUNING) ?? [] };
        const moved = placeOwnShape(shape, to, STANDARD_TUNING);
        expect(moved && isOwnShape(shape, moved, STANDARD_TUNING)).toBe(true);
      }),
      { seed: 6 },
    );
  });
});

describe('places of a note', () => {
  it('are on every string that reaches it', () => {
    expect(text(placesOf(52, STANDARD_TUNING))).toBe('6/12 5/7 4/2');
    expect(placesOf(39, STANDARD_TUNING)).toEqual([]);
  });
});
