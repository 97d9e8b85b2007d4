import { describe, expect, it } from 'vitest';
import { DECK_KEYS } from '../transport/deck-keys';
import { callOf, type KeyMap, type Press } from '../shared/key-map';
import { SECTION_KEYS } from '../features/sections/section-keys';
import { TUNING_KEYS } from '../features/tuning/tuning-keys';
import { RIFF_KEYS } from '../features/riffs/keys/riff-keys';

const press = (key: string, more: Partial<Press> = {}): Press => ({
  key,
  code: '',
  shiftKey: false,
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  ...more,
});

describe('keys of the Riffs screen', () => {
  it.each<[string, Partial<Press>, string | null, unknown]>([
    ['5', {}, 'digit', 5],
    ['@', { code: 'Digit2', shiftKey: true }, 'shape', 1],
    ['é', { code: 'Digit2' }, 'shape', 1],
    ['2', { code: 'Digit2', altKey: true }, 'ownShape', 1],
    ['m', {}, 'mark-mute', 'mute'],
    ['M', {}, 'mark-mute', 'mute'],
    ['S', {}, 'mark-slide', 'slide'],
    ['S', { shiftKey: true }, 'mark-slide-end', 'slide-end'],
    ['T', { shiftKey: true }, 'mark-tremolo', 'tremolo'],
    ['T', {}, 'mark-short', 'short'],
    ['ArrowRight', {}, 'stepStrum', 1],
    ['ArrowRight', { shiftKey: true }, 'select', 1],
    ['ArrowRight', { ctrlKey: true }, 'move', 1],
    ['ArrowUp', { ctrlKey: true }, 'shift', { frets: 1, strings: 0 }],
    ['ArrowUp', { altKey: true }, 'cross', { frets: 0, strings: -1 }],
    ['Enter', { shiftKey: true }, 'repeatBar', null],
    ['z', { ctrlKey: true }, 'undo', null],
    ['(', { code: 'Digit9', shiftKey: true }, null, null],
    ['l', {}, null, null],
    ['a', {}, null, null],
    ['r', { ctrlKey: true }, null, null],
  ])('%s %j calls %s', (key, more, name, given) => {
    expect(callOf(RIFF_KEYS, press(key, more))).toEqual(name === null ? null : { name, given });
  });
});

describe('all keys', () => {
  const pressesOf = (map: KeyMap): string[] => Object.values(map).flatMap((row) => Object.keys(row.on));

  it.each([
    ['Riffs', RIFF_KEYS],
    ['Sections', SECTION_KEYS],
    ['Tuning', TUNING_KEYS],
    ['the deck', DECK_KEYS],
  ])('of %s mean one thing each, and are on the card', (_, map) => {
    const presses = pressesOf(map);
    expect(new Set(presses).size).toBe(presses.length);
    const rows: KeyMap = map;
    for (const { caps, does } of Object.values(rows)) expect([caps, does]).not.toContain('');
    const caps = Object.values(rows).map((row) => row.caps);
    expect(new Set(caps).size).toBe(caps.length);
  });

  it.each([
    ['Riffs', RIFF_KEYS],
    ['Sections', SECTION_KEYS],
    ['Tuning', TUNING_KEYS],
  ])('of %s leave the deck its own', (_, map) => {
    const deck = new Set(pressesOf(DECK_KEYS));
    expect(pressesOf(map).filter((p) => deck.has(p))).toEqual([]);
  });
});
