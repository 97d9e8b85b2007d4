import { expect, it } from 'vitest';
import { readyWords } from './recording-switch';

it('says where two recordings of a song differ', () => {
  expect(readyWords(0, [])).toBe('has the same parts');
  expect(readyWords(1, [])).toBe('1 semitone higher');
  expect(
    readyWords(-2, [
      { recording: 'other', startS: 62, endS: 78 },
      { recording: 'reference', startS: 120, endS: 135 },
    ]),
  ).toMatch(/^2 semitones lower, has 16 s more at 1:02, leaves out 2:00 to 2:15$/);
});
