/**
 * The chord kinds that a rhythm guitar plays, as semitones above the root.
 * Source: interval content of the chords as in any harmony handbook; power chord = root and fifth with no
 * third. `suffix` is common practice in lead sheets. The order is the order of the lists on screen.
 */
export const CHORD_KINDS = [
  { quality: '5', intervals: [0, 7], suffix: '5', words: 'power chord' },
  { quality: 'b5', intervals: [0, 6], suffix: '5(♭5)', words: 'flat five' },
  { quality: 'oct', intervals: [0], suffix: ' octave', words: 'octave' },
  { quality: 'sus2', intervals: [0, 2, 7], suffix: 'sus2', words: 'suspended second' },
  { quality: 'sus4', intervals: [0, 5, 7], suffix: 'sus4', words: 'suspended fourth' },
  { quality: 'maj', intervals: [0, 4, 7], suffix: '', words: 'major' },
  { quality: 'min', intervals: [0, 3, 7], suffix: 'm', words: 'minor' },
  { quality: 'single', intervals: [0], suffix: '', words: 'single note' },
] as const;

/** `other`: notes that form none of the kinds. */
export const CHORD_QUALITIES = [...CHORD_KINDS.map((kind) => kind.quality), 'other'] as const;
export type ChordQuality = (typeof CHORD_QUALITIES)[number];
