import { describe, expect, it } from 'vitest';
import { nameInRoom } from './strip-words';

describe('the name of a part on the strip', () => {
  it.each([
    ['Verse 2', 120, 'Verse 2'],
    ['Verse 2', 40, 'V2'],
    ['Part 12', 30, 'P12'],
    ['Guitar solo', 30, 'Gs'],
    ['Intro', 10, 'I'],
    ['🎸 loud', 10, '🎸l'],
    ['', 10, ''],
  ])('%s in %i px is %s', (name, roomPx, shown) => {
    expect(nameInRoom(name, roomPx)).toBe(shown);
  });
});
