/**
 * Pages that are drawn as SVG as one PDF: lines as lines, text as text that can be searched, the fonts inside, as far as they are used.
 * By `pdfkit` and `svg-to-pdfkit`; nothing that a page points to is fetched.
 */
import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import SVGtoPDF from 'svg-to-pdfkit';
import type { PdfRequest } from '@wild-needle/contract';

/** Points of an inch, and pixels (CSS Values and Units, level 3). */
const POINTS_OF_PIXEL = 72 / 96;
/** Nothing: in place of a picture that a page points to. */
const NO_IMAGE =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAQAAAC1HAwCAAAAC0lEQVR42mNkYAAAAAYAAjCB0C8AAAAASUVORK5CYII=';

/** The fonts of the application, by the weights that pages are set in. */
const FONTS: Readonly<
  Record<string, { readonly file: string; readonly plain: number; readonly bold: number }>
> = {
  'big shoulders display': { file: 'big-shoulders-display', plain: 500, bold: 700 },
  'instrument sans': { file: 'instrument-sans', plain: 400, bold: 600 },
  'spline sans mono': { file: 'spline-sans-mono', plain: 400, bold: 500 },
};
const USUAL_FONT = 'instrument sans';
const require = createRequire(import.meta.url);

function fontFile(families: string, isBold: boolean): string {
  const names = families.split(',').map((name) => name.replace(/["']/g, '').trim().toLowerCase());
  const { file, plain, bold } = FONTS[names.find((name) => name in FONTS) ?? USUAL_FONT];
  return require.resolve(`@fontsource/${file}/files/${file}-latin-${isBold ? bold : plain}-normal.woff`);
}

/** Throws a RangeError for a page that is no SVG. */
export async function makePdf({ title, widthPx, heightPx, pages }: PdfRequest): Promise<Buffer> {
  const size: [number, number] = [widthPx * POINTS_OF_PIXEL, heightPx * POINTS_OF_PIXEL];
  const document = new PDFDocument({ size, margin: 0, autoFirstPage: false, info: { Title: title } });
  const chunks: Buffer[] = [];
  document.on('data', (chunk: Buffer) => chunks.push(chunk));
  const ended = new Promise<void>((resolve) => document.on('end', resolve));
  pages.forEach((svg, i) => {
    if (!/^\s*(<\?xml[^>]*>)?\s*<svg[\s>]/.test(svg)) throw new RangeError(`page ${i + 1} is no SVG`);
    document.addPage();
    try {
      SVGtoPDF(document, svg, 0, 0, {
        width: size[0],
        height: size[1],
        fontCallback: fontFile,
        imageCallback: () => NO_IMAGE,
        warningCallback: () => undefined,
      });
    } catch (cause) {
      throw new RangeError(`page ${i + 1} is an SVG that can’t be drawn`, { cause });
    }
  });
  document.end();
  await ended;
  return Buffer.concat(chunks);
}
