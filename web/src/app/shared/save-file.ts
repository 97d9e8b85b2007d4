/** Hands a text, or bytes, to the browser as a file. */

/** 'Nine Volt, Harbour!' → 'nine-volt-harbour' */
export function plainName(title: string): string {
  const plain = title
    .normalize('NFKD')
    .replace(/[^\w\s-]/g, '')
    .trim()
    .replace(/\s+/g, '-')
    .toLowerCase();
  return plain === '' ? 'song' : plain;
}

export function saveFile(
  page: Document,
  title: string,
  ending: string,
  mime: string,
  content: string | Uint8Array,
): void {
  const [part, type] =
    typeof content === 'string' ? [content, `${mime};charset=utf-8`] : [content.slice().buffer, mime];
  const url = URL.createObjectURL(new Blob([part], { type }));
  const link = page.createElement('a');
  link.href = url;
  link.download = `${plainName(title)}.${ending}`;
  link.click();
  URL.revokeObjectURL(url);
}
