import { describe, expect, it } from 'vitest';
import { splitName, spokenName } from './chord-name';
import { buildPeakPyramid } from '@wild-needle/core/units';
import { groovePath, samplePath } from './groove-path';
import { isCommandKey } from './keys';
import { plainName } from './save-file';
import { counted, dayOf, movedBy, signedCents, soFarWords } from './words';

describe('words', () => {
  it('says cents, numbers and moves', () => {
    expect([signedCents(-38), signedCents(1), counted(1, 'bar'), counted(2, 'bar')]).toEqual([
      '−38 cents',
      '+1 cent',
      '1 bar',
      '2 bars',
    ]);
    expect([movedBy(0), movedBy(2), movedBy(-3)]).toEqual(['', '+2', '−3']);
  });

  it('says what is known while the rest is measured', () => {
    const nothing = { referenceOffsetCents: null, tempoBpm: null, meter: null, downbeatsS: [], strumsS: [] };
    expect([soFarWords(null), soFarWords(nothing)]).toEqual(['', '']);
    const strums = { ...nothing, referenceOffsetCents: -22.6, strumsS: [1, 2] };
    expect(soFarWords(strums)).toBe('−23 cents, 2 strums');
    const beats = { ...strums, tempoBpm: 139.8, meter: { beats: 7, unit: 8 } };
    expect(soFarWords(beats)).toBe('−23 cents, 140 bpm in 7/8, 2 strums');
  });

  it('says days as people do', () => {
    const now = new Date(2026, 2, 12, 18);
    expect(dayOf(new Date(2026, 2, 12, 9, 5), now)).toBe('Today, 09:05');
    expect(dayOf(new Date(2026, 2, 11, 23, 59), now)).toBe('Yesterday');
    expect(dayOf(new Date(2026, 2, 1), now)).toBe('1 March');
    expect(dayOf(new Date(2025, 2, 1), now)).toBe('1 March 2025');
  });
});

describe('chord names', () => {
  it.each([
    ['Bb5', ['B', 'b', '5']],
    ['C#5/G#', ['C', '#', '5/G', '#']],
    ['Ebsus4', ['E', 'b', 'sus4']],
    ['E5(♭5)', ['E5(', '♭', '5)']],
    ['D', ['D']],
  ])('%s is drawn in parts', (name, parts) => {
    expect(splitName(name).map((p) => p.text)).toEqual(parts);
  });

  it('are spoken', () => {
    expect(spokenName('C#5/Bb')).toBe('C sharp 5/B flat');
  });
});

describe('groove path', () => {
  it('draws the loudest value of each pixel, mirrored', () => {
    const envelope = new Uint8Array(400).fill(0);
    envelope[200] = 255;
    const path = groovePath(buildPeakPyramid(envelope), 4, 20, (x) => x / 2);
    // Pixel 2 holds second 1, where the loud value is: from the middle up and down to the edge.
    expect(path).toContain('2,20');
    expect(path).toContain('2,0');
    expect(path).toContain('1,10.5');
  });

  it('draws single samples as a line from the lowest to the highest of each column', () => {
    const path = samplePath(Float32Array.of(-1, 0), Float32Array.of(1, 0), 8, 20);
    // The first column fills the height, the second is a pixel in the middle.
    expect(path).toBe('M0,-0.5L4,9.5L4,10.5L0,20.5Z');
  });
});

describe('command keys', () => {
  /** What an element marked 'reached' has the focus from the keyboard. */
  const press = (html: string, key: string, init: KeyboardEventInit = {}): boolean => {
    document.body.innerHTML = html;
    const target = document.querySelector('#t') ?? document.body;
    document.querySelector<HTMLElement>('.reached')?.focus();
    let result = false;
    document.addEventListener('keydown', (event) => (result = isCommandKey(event)), { once: true });
    target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, ...init }));
    return result;
  };

  it.each([
    ['<p id="t"></p>', 'm', {}, true],
    ['<button id="t"></button>', ' ', {}, true],
    ['<button id="t" class="reached"></button>', ' ', {}, false],
    ['<button id="t" class="reached"></button>', 'm', {}, true],
    ['<select id="t"></select>', 'm', {}, false],
    ['<input id="t">', 'm', {}, false],
    ['<p id="t"></p>', 'z', { ctrlKey: true }, false],
    ['<input id="t" type="range" class="reached">', 'ArrowLeft', {}, false],
    ['<input id="t" type="range">', 'ArrowLeft', {}, true],
    ['<input id="t" type="range">', 'm', {}, true],
    ['<div role="menu"><button id="t"></button></div>', 'ArrowDown', {}, false],
  ])('%s, key "%s" %j: %s', (html, key, init, expected) => {
    expect(press(html, key, init)).toBe(expected);
  });
});

describe('names of files', () => {
  it.each([
    ['Salt on the Wire', 'salt-on-the-wire'],
    ['Ünder / Über', 'under-uber'],
    ['???', 'song'],
  ])('%s is saved as %s', (title, name) => {
    expect(plainName(title)).toBe(name);
  });
});
