import { beforeEach, describe, expect, it } from 'vitest';
import { addRiff, changeRiff, PLAIN_SONG, type SongDocument } from '@wild-needle/core/riff';
import { keepSteps, keptSteps, packSteps, unpackSteps } from './session-history';

const id = (n: number): string => `3fa85f64-5717-4562-b3fc-2c963f66af${n}`;
const first: SongDocument = { ...PLAIN_SONG, title: 'T' };
const second = addRiff(first, id(10), 2);
const third = addRiff(second, id(11), 1);
const fourth = changeRiff(third, id(10), (riff) => ({ ...riff, name: 'Verse riff' }));
/** As it comes from the server: equal, another object, its keys in another order. */
const opened: SongDocument = JSON.parse(JSON.stringify(third), (_, value: unknown) =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
    ? Object.fromEntries(Object.entries(value).reverse())
    : value,
) as SongDocument;

describe('steps over a reload', () => {
  beforeEach(() => sessionStorage.clear());

  it('come back around the document that is shown, sharing what did not change', async () => {
    const steps = await unpackSteps(packSteps(third, { past: [first, second], future: [fourth] }), opened);
    expect(steps).toEqual({ past: [first, second], future: [fourth] });
    expect(steps?.past[1].riffs[0]).toBe(opened.riffs[0]);
    expect(steps?.future[0].riffs[1]).toBe(opened.riffs[1]);
    expect(steps?.future[0].riffs[0]).not.toBe(opened.riffs[0]);
  });

  it('are written once for all that share them', () => {
    const name = (n: number): SongDocument => ({ ...third, title: `T${n}` });
    const many = packSteps(third, { past: Array.from({ length: 50 }, (_, n) => name(n)), future: [] });
    expect(many.match(new RegExp(id(10), 'g'))).toHaveLength(1);
  });

  it('are left where they are of another state, or damaged', async () => {
    const text = packSteps(third, { past: [second], future: [] });
    expect(await unpackSteps(text, fourth)).toBeNull();
    expect(await unpackSteps(text.slice(9), opened)).toBeNull();
    expect(await unpackSteps(text.replaceAll('"beats":4', '"beats":-4'), opened)).toBeNull();
  });

  it('are kept for one song in the tab', async () => {
    keepSteps('a', second, { past: [first], future: [] });
    keepSteps('b', third, { past: [second], future: [] });
    expect(await keptSteps('a', second)).toBeNull();
    expect((await keptSteps('b', opened))?.past).toEqual([second]);
    keepSteps('b', third, { past: [], future: [] });
    expect(await keptSteps('b', opened)).toBeNull();
  });
});
