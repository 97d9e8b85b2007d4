/** Lists in words, as every text of the program has them. */
const LIST = new Intl.ListFormat('en-GB', { type: 'conjunction' });

/** '1, 2 and 4'; '' for nothing. */
export function listInWords(items: readonly (string | number)[]): string {
  return LIST.format(items.map(String));
}
