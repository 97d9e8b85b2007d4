/** Bytes of a text file as text: UTF-8, UTF-16 by its mark, and Windows-1252 for what is no UTF-8 (Encoding Standard, WHATWG). */

/** In browsers and in Node alike; the core is compiled without the types of either. */
declare const TextDecoder: new (
  label: string,
  options?: { readonly fatal: boolean },
) => { decode(bytes: Uint8Array): string };

export function decodeText(bytes: Uint8Array): string {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (a === 0xfe && b === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
