import { describe, expect, it } from 'vitest';
import { PLAIN_SONG } from '@wild-needle/core/riff';
import { footOf, versionWords } from './sheet-words';

const SAME = { document: PLAIN_SONG, changed: 0, gone: 0, lost: 0, lostNotes: [], taken: 0 };
const on = new Date(2026, 10, 29);

describe('the words of the sheet', () => {
  it('say what a version changed, and name the notes that it lacks', () => {
    expect(versionWords(SAME, null)).toBe('Every strum as it is written.');
    expect(versionWords({ ...SAME, changed: 11, gone: 1 }, null)).toBe(
      '11 strums are played otherwise, 1 stroke left out.',
    );
    expect(versionWords({ ...SAME, lost: 4, lostNotes: [37, 38] }, null)).toBe('4 notes lost: C#2 and D2.');
    expect(versionWords({ ...SAME, taken: 8, gone: 2 }, null)).toBe(
      '2 strokes left out, 8 strums of guitar 2 taken in.',
    );
  });

  it('stand at the foot: which recording, what is doubtful, for whom and when', () => {
    expect(footOf({ ...PLAIN_SONG, referenceOffsetCents: 38 }, 211, 2, { forWhom: '', on })).toBe(
      'Recording of 3:31, plays +38 cents from A 440. ◇ 2 strums still doubtful. 29 November 2026. For private study.',
    );
    expect(footOf(PLAIN_SONG, null, 0, { forWhom: 'the second guitar', on })).toBe(
      'For the second guitar, 29 November 2026. For private study.',
    );
  });
});
