/** Pages to be made into one file. */
import * as z from 'zod';
import { trimmedText } from './text';

/** Pages of a song; the longest sheet has a third of it. */
const MOST_PAGES = 60;
/** A page with a thousand strums is about a megabyte. */
const LONGEST_PAGE = 4_000_000;
const pixels = z.number().min(100).max(5000);

export const pdfRequestSchema = z.object({
  title: trimmedText(200),
  /** At 96 px an inch. */
  widthPx: pixels,
  heightPx: pixels,
  /** Each an SVG document of that size. */
  pages: z.array(z.string().min(1).max(LONGEST_PAGE)).min(1).max(MOST_PAGES),
});
export type PdfRequest = z.infer<typeof pdfRequestSchema>;
