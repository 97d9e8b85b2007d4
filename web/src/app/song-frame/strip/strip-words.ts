/** Names of parts as the strip has room for them: "Pre-chorus 2" where it fits, "P2" where it would be cut to "Pre". */

/** Of a letter of the strip's names on the mean (13 px, semi-bold), and of what stands beside a name. */
const LETTER_PX = 7.2;
const BESIDE_PX = 7;

/** First letters of its words and the numbers among them, which tell parts of one kind apart. */
function initials(name: string): string {
  return name
    .split(/\s+/)
    .map((word) => (/^\d/.test(word) ? word : (/./u.exec(word)?.[0] ?? '')))
    .join('');
}

/** The name, or its {@link initials} where the whole is wider than the room. */
export function nameInRoom(name: string, roomPx: number): string {
  return BESIDE_PX + name.length * LETTER_PX <= roomPx ? name : initials(name);
}
