import { describe, expect, it } from 'vitest';
import { placeShape, POWER_SHAPES, soundingNotes, STANDARD_TUNING } from '../guitar';
import { CHORD_SHAPES } from '../mir';
import { identifyChord } from '../theory';

/** Three tables say what chords there are: what kinds are called, what the network tells apart, what the hand keeps. */
describe('the tables of chords', () => {
  const heard = CHORD_SHAPES.flatMap(({ notes, rootAbove }) => (notes ? [{ notes, rootAbove }] : []));

  it.each(heard)('agree on the root of $notes', ({ notes, rootAbove }) => {
    const chord = identifyChord(notes.map((n) => 36 + n))!;
    if (chord.quality !== 'other') expect(chord.rootPc).toBe(rootAbove);
  });

  it.each(POWER_SHAPES.filter((shape) => shape.id !== 'one-finger'))(
    'have the shape "$name" of the hand among what is heard, and a name for it',
    (shape) => {
      const frets = placeShape(shape, { string: 5, fret: 3 }, STANDARD_TUNING)!;
      const notes = soundingNotes(STANDARD_TUNING, frets);
      expect(heard.map((h) => h.notes.join())).toContain(notes.map((n) => n - notes[0]).join());
      expect(identifyChord(notes)).toMatchObject({ rootPc: 0 });
      expect(identifyChord(notes)!.quality).not.toBe('other');
    },
  );
});
