/** Tables that every spreadsheet reads: RFC 4180, by a package. */
import Papa from 'papaparse';

/** Text that begins like a formula stays text. */
export function tableOf(
  fields: readonly string[],
  data: readonly (readonly (string | number | null)[])[],
): string {
  const rows = { fields: [...fields], data: data.map((row) => [...row]) };
  return `${Papa.unparse(rows, { escapeFormulae: true, newline: '\r\n' })}\r\n`;
}
