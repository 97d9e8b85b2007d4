import { describe, expect, it } from 'vitest';
import { SONG } from '../test-song';
import { writeSectionMarkdown } from './section-markdown';

describe('sections as a Markdown table', () => {
  it('have a row each under a head and a rule', () => {
    expect(writeSectionMarkdown(SONG)).toBe(
      '| Section | Starts | Ends | Bars | Riff | Moved | Passes |\n' +
        '| --- | ---: | ---: | ---: | --- | ---: | ---: |\n' +
        '| Intro, "slow" | 0:00.0 | 0:08.0 | 4 | A | 0 | 2 |\n' +
        '| Verse | 0:08.0 | 0:24.0 | 8 | A | +2 | 4 |\n',
    );
  });

  // GitHub Flavored Markdown 0.29, section 4.10, example 200: a pipe inside of a cell is escaped.
  it('escape what would end a cell or be read as markup', () => {
    const [first] = SONG.sections;
    const written = writeSectionMarkdown({
      ...SONG,
      sections: [{ ...first, name: 'a|b *c* `d` <e>\nf' }],
    });
    expect(written.split('\n')[2]).toContain('| a\\|b \\*c\\* \\`d\\` \\<e\\> f |');
  });

  it('are only head and rule without sections', () => {
    expect(writeSectionMarkdown({ ...SONG, sections: [] }).split('\n')).toHaveLength(3);
  });
});
