/**
 * The keys of a screen as one table: what a press does, what the cap on a button shows and what the card of keys says all come
 * from its rows. Rows are named like the methods that they call.
 */

import { isCommandKey, isTyping } from './keys';

export interface KeyRow {
  /**
   * What each press hands to the row's handler. A press is the key as the browser names it, with 'ctrl+' or 'alt+' before it, and
   * 'shift+' before keys that have a name ('ctrl+shift+Home'); 'Digit1' is a place on the keyboard, whatever it types there.
   */
  readonly on: Readonly<Record<string, unknown>>;
  /** As on the card: '← →'; where there is one press, the cap of its button too. */
  readonly caps: string;
  readonly does: string;
}

export type KeyMap = Readonly<Record<string, KeyRow>>;

/** A row that was called, and with what. */
export interface KeyCall<Name> {
  readonly name: Name;
  readonly given: unknown;
}

/** The value that a row's presses hand over. */
export type Given<Row extends KeyRow> = Row['on'][keyof Row['on']];

/** A handler for each row. */
export type KeyHandlers<Map extends KeyMap> = {
  readonly [Name in keyof Map]: (given: Given<Map[Name]>, event: KeyboardEvent) => void;
};

export type Press = Pick<KeyboardEvent, 'key' | 'code' | 'shiftKey' | 'ctrlKey' | 'metaKey' | 'altKey'>;

const DIGIT_CODE = /^Digit[1-9]$/;

/** Names that a press goes by, the most telling first. */
function namesOf({ key, code, shiftKey, ctrlKey, metaKey, altKey }: Press): string[] {
  const plain = key.length === 1 ? key.toLowerCase() : key;
  const place = DIGIT_CODE.test(code) ? [code] : [];
  const named = shiftKey && key.length > 1 ? `shift+${key}` : plain;
  if (altKey) return [...place.map((p) => `alt+${p}`), `alt+${named}`];
  if (ctrlKey || metaKey) return [`ctrl+${named}`];
  if (/^[0-9]$/.test(key)) return [key];
  // With the capitals locked a letter is still the plain key.
  return shiftKey ? [...place, `shift+${key}`, key, plain] : [...place, plain];
}

const FLAT = new WeakMap<KeyMap, ReadonlyMap<string, KeyCall<string>>>();

function flat(map: KeyMap): ReadonlyMap<string, KeyCall<string>> {
  let known = FLAT.get(map);
  if (!known) {
    known = new Map(
      Object.entries(map).flatMap(([name, { on }]) =>
        Object.entries(on).map(([press, given]) => [press, { name, given }] as const),
      ),
    );
    FLAT.set(map, known);
  }
  return known;
}

/** What a press calls; null when it is none of this map's. */
export function callOf<Map extends KeyMap>(map: Map, press: Press): KeyCall<keyof Map & string> | null {
  const presses = flat(map);
  const name = namesOf(press).find((n) => presses.has(n));
  return name === undefined ? null : presses.get(name)!;
}

/** Runs what a press calls, unless it belongs to a text that is typed or to a control that has the focus. */
export function runScreenKey<Map extends KeyMap>(
  map: Map,
  handlers: KeyHandlers<Map>,
  event: KeyboardEvent,
): boolean {
  const isModified = event.ctrlKey || event.metaKey || event.altKey;
  const isOurs = isModified ? !event.defaultPrevented && !isTyping(event) : isCommandKey(event);
  return isOurs && runKey(map, handlers, event);
}

/** Runs what a press calls; false when it is none of this map's. */
export function runKey<Map extends KeyMap>(
  map: Map,
  handlers: KeyHandlers<Map>,
  event: KeyboardEvent,
): boolean {
  const call = callOf(map, event);
  if (!call) return false;
  event.preventDefault();
  // The table gives each row the handler of its own values; the compiler can't follow that through the union.
  (handlers[call.name] as (given: unknown, event: KeyboardEvent) => void)(call.given, event);
  return true;
}
