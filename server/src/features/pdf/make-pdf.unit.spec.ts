import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { makePdf } from './make-pdf';

const page = (words: string, inside = ''): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="1123" height="794" viewBox="0 0 1123 794">
    <rect width="1123" height="794" fill="white"/><path d="M50 100H1000" stroke="black"/>
    <text x="50" y="80" font-family="&quot;Big Shoulders Display&quot;, sans-serif" font-weight="700" font-size="40">${words}</text>
    <text x="50" y="200" font-family="nobody's font" font-size="16">counts 1 &amp; 2</text>${inside}</svg>`;

describe('pages as a PDF', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wn-pdf-'));
  afterAll(() => rmSync(folder, { recursive: true }));
  const path = join(folder, 'sheet.pdf');
  const made = async (pages: readonly string[]): Promise<Buffer> => {
    const pdf = await makePdf({ title: 'Low Tide', widthPx: 1123, heightPx: 794, pages: [...pages] });
    writeFileSync(path, pdf);
    return pdf;
  };
  /** Read by poppler. */
  const read = (tool: string, ...args: readonly string[]): string =>
    execFileSync(tool, [...args, path, ...(tool === 'pdftotext' ? ['-'] : [])], { encoding: 'utf8' });

  it('are as many, as large, with text that can be read back and fonts inside', async () => {
    await made([page('Salt'), page('Wire')]);
    const info = read('pdfinfo');
    expect(info).toMatch(/Pages:\s+2/);
    expect(info).toMatch(/Title:\s+Low Tide/);
    expect(info).toMatch(/Page size:\s+842\.25 x 595\.5 pts/);
    expect(read('pdftotext').split('\f')[1]).toMatch(/Wire\s+counts 1 & 2/);
    const fonts = read('pdffonts');
    expect(fonts).toMatch(/BigShoulders.*\s+yes yes yes/);
    expect(fonts).toMatch(/InstrumentSans.*\s+yes yes yes/);
  });

  it('have nothing of what they point to', async () => {
    const outside =
      '<image href="file:///etc/passwd" width="9" height="9"/><image href="http://127.0.0.1:9/x.png" width="9" height="9"/>';
    expect((await made([page('Salt', outside)])).length).toBeGreaterThan(1000);
    expect(read('pdftotext')).toContain('Salt');
  });

  it.each(['words', '<html></html>', ''])('are refused where one is no SVG: %j', async (svg) => {
    await expect(made([page('Salt'), svg])).rejects.toThrow('page 2 is no SVG');
  });
});
