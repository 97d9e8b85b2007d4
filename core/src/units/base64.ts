/** Base64 (RFC 4648, section 4) to bytes. Throws where `text` is none. */
export function bytesOf(text: string): Uint8Array<ArrayBuffer> {
  return Uint8Array.from(atob(text), (c) => c.charCodeAt(0));
}

/** Of browsers, workers and Node alike (WHATWG HTML, section 8.3). */
declare function atob(text: string): string;
