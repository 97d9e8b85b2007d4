import { describe, expect, it } from 'vitest';
import type { BarChroma } from './bar-chroma';
import type { BarContent } from './bar-contents';
import type { BarLikeness } from './bar-likeness';
import { songLikeness } from './song-likeness';
import { chordBar, chromaOf } from './test-part';

const likenessOf = (contents: readonly BarContent[], harmony: readonly BarChroma[]): BarLikeness =>
  songLikeness(
    contents,
    harmony,
    contents.map(() => 0),
  );

describe('what tells that two bars are the same', () => {
  it('is the strums where they come back as they were, whatever else sounds', () => {
    const likeness = likenessOf(
      [chordBar(0), chordBar(5, 0.25), chordBar(0), chordBar(5, 0.25)],
      [1, 1, 1, 1].map(chromaOf),
    );
    expect(likeness(0, 2, 0)).toBe(1);
    expect(likeness(0, 1, 0)).toBe(0);
  });

  it('is the strums where they come back moved up the neck', () => {
    const likeness = likenessOf(
      [chordBar(0), chordBar(5, 0.25), chordBar(2), chordBar(7, 0.25)],
      [1, 4, 1, 4].map(chromaOf),
    );
    expect(likeness(0, 2, 2)).toBe(1);
    expect(likeness(0, 2, 0)).toBeLessThan(0.5);
  });

  it('is mostly the sound where each bar is heard otherwise', () => {
    const heard = Array.from({ length: 8 }, (_, b) => chordBar((b * 5) % 12, b * 0.04));
    const likeness = likenessOf(heard, [1, 4, 1, 4, 1, 4, 1, 4].map(chromaOf));
    expect(likeness(0, 2, 0)).toBeGreaterThan(0.75);
    expect(likeness(0, 1, 0)).toBeLessThan(0.2);
  });

  it('is the strums of a song that plays much just once, where they say its form in fewer words', () => {
    // A riff of two bars four times, then twelve bars that never come back; what the band plays under it is another thing.
    const riff = [chordBar(0), chordBar(5, 0.25)];
    const once = Array.from({ length: 12 }, (_, b) =>
      [0.06, 0.14 + 0.05 * b].map((at) => ({ at, bass: 41 + b, rootPc: 1 + b, palmMuted: false })),
    );
    const contents = [...riff, ...riff, ...riff, ...riff, ...once];
    const roots = [0, 5, 3, 10, 1, 8, 2, 11, 7, 4, 9, 6, 0, 3, 8, 5, 11, 1, 7, 2];
    const likeness = likenessOf(contents, roots.map(chromaOf));
    expect(likeness(0, 2, 0)).toBe(1);
    expect(likeness(0, 12, 0)).toBeLessThan(0.2);
  });
});
