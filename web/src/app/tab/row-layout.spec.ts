import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { barsThatFit } from './bars-in-view';
import { CHARACTER_WIDTH, layoutRow, type RowLayout } from './row-layout';
import { tailPath } from './strum-shapes';
import { OPTIONS, RIFF, strum } from './test-row';

describe('row layout', () => {
  const layout = layoutRow(RIFF, OPTIONS);

  it('places strums by their time', () => {
    expect(layout.blocks.map((b) => b.x)).toEqual([0, 200, 400, 600]);
    expect(layout.counts.filter((c) => c.onBeat).map((c) => c.x)).toEqual([0, 200, 400, 600]);
    expect(layout.counts.map((c) => c.text)).toContain('&');
    const narrow = layoutRow(RIFF, { ...OPTIONS, widthPx: 120 });
    expect(narrow.counts.map((c) => c.text)).toEqual(['1', '2', '3', '4']);
  });

  it('folds strings that the riff does not touch and spreads the others', () => {
    expect(layout.lines.filter((l) => l.open).map((l) => l.string)).toEqual([5, 6]);
    expect(layout.lines[5].y - layout.lines[4].y).toBe(30);
    expect(layout.lines[1].y - layout.lines[0].y).toBe(9);
    expect(layoutRow(RIFF, { ...OPTIONS, openString: 1 }).lines[0].open).toBe(true);
  });

  it('shows six bare strings for an empty riff', () => {
    expect(layoutRow({ ...RIFF, strums: [] }, OPTIONS).lines.every((l) => l.open)).toBe(true);
  });

  it('names a muted strum only when its chord is new, and a dead one never', () => {
    expect(layout.blocks.map((b) => b.name)).toEqual(['E5', '', '', 'G5']);
    expect(layout.blocks[2].crosses).toHaveLength(2);
  });

  it('makes names smaller where the next one is near', () => {
    const sizes = (gapTicks: number): number[] => {
      const strums = [
        strum(0, [
          [6, 0],
          [5, 2],
        ]),
        strum(gapTicks, [
          [6, 3],
          [5, 5],
        ]),
      ];
      return layoutRow({ ...RIFF, strums }, OPTIONS).blocks.map((b) => b.nameSizePx);
    };
    expect(sizes(960)).toEqual([34, 34]);
    const [near, last] = sizes(120);
    expect(near).toBeGreaterThan(14);
    expect(near * 0.41 * 'E5'.length).toBeLessThan(25);
    expect(last).toBe(34);
  });

  it('leaves out a name that has no room at all, and digits keep to their block', () => {
    const strums = [strum(0, [[6, 12]], { palmMute: true }), strum(30, [[6, 5]])];
    const [crowded] = layoutRow({ ...RIFF, strums }, OPTIONS).blocks;
    expect(crowded.name).toBe('');
    expect(crowded.digitSizePx * 0.41 * 2).toBeLessThan(crowded.width);
  });

  it('leaves the octave to the digits where there is no room for the word', () => {
    const octave: [number, number][] = [
      [5, 5],
      [3, 7],
    ];
    const strums = [strum(0, octave), strum(240, [[6, 1]])];
    const nameAt = (widthPx: number): string =>
      layoutRow({ ...RIFF, strums }, { ...OPTIONS, widthPx }).blocks[0].name;
    expect(nameAt(2000)).toBe('D octave');
    expect(nameAt(600)).toBe('D');
  });

  it('names a chord where it changes and at each bar where strums stand too close for every name', () => {
    const bars = [RIFF.bars[0], RIFF.bars[0]];
    const chords: [number, number][][] = [
      ...Array.from({ length: 10 }, (): [number, number][] => [
        [6, 0],
        [5, 2],
      ]),
      ...Array.from({ length: 6 }, (): [number, number][] => [
        [6, 3],
        [5, 5],
      ]),
    ];
    const strums = chords.map((frets, i) => strum(480 * i, frets));
    const window = { fromTicks: 0, toTicks: 7680 };
    const names = (widthPx: number): string[] =>
      layoutRow({ ...RIFF, bars, strums }, { ...OPTIONS, window, widthPx }).blocks.map((b) => b.name);
    expect(names(800)).toEqual([...Array<string>(10).fill('E5'), ...Array<string>(6).fill('G5')]);
    expect(names(400).flatMap((name, i) => (name ? [[i, name]] : []))).toEqual([
      [0, 'E5'],
      [8, 'E5'],
      [10, 'G5'],
    ]);
  });

  it('ends a ring at the next strum', () => {
    expect(layout.blocks[0].tailX).toBe(200);
    expect(tailPath(layout.blocks[0])).toMatch(/^M26 .* 200 /);
  });

  it('narrows blocks that stand close, and leaves out what is not on this page', () => {
    const close = { ...RIFF, strums: [strum(0, [[6, 0]]), strum(120, [[6, 1]])] };
    expect(layoutRow(close, OPTIONS).blocks[0].width).toBeLessThan(28);
    expect(layoutRow(RIFF, { ...OPTIONS, window: { fromTicks: 1920, toTicks: 3840 } }).blocks).toHaveLength(
      2,
    );
  });
});

/** A box of text or hatching, from left to right, on its line. */
interface Box {
  readonly what: string;
  readonly line: string;
  readonly from: number;
  readonly to: number;
}

/** Everything of a row that is read, and the hatching that digits must not stand on. */
function boxesOf({ blocks, counts, barNumbers }: RowLayout): Box[] {
  const width = (text: string, sizePx: number): number => CHARACTER_WIDTH * sizePx * text.length;
  return [
    ...blocks
      .filter((b) => b.name !== '')
      .map((b) => ({ what: b.name, line: 'names', from: b.x, to: b.x + width(b.name, b.nameSizePx) })),
    ...blocks.flatMap((b) => {
      const middle = b.x + b.width / 2;
      return b.digits.flatMap(({ string, text }) => {
        const half = width(text, b.digitSizePx) / 2;
        const digit = { what: text, line: `string ${string}`, from: middle - half, to: middle + half };
        if (!b.palmMute) return [digit];
        const hatching = { what: 'hatching', line: digit.line };
        return [
          { ...hatching, from: b.x, to: b.x + b.pillInset },
          digit,
          { ...hatching, from: b.x + b.width - b.pillInset, to: b.x + b.width },
        ];
      });
    }),
    ...counts.map((c) => ({
      what: c.text,
      line: 'counts',
      from: c.x,
      to: c.x + (c.onBeat ? 11 + 9 * c.text.length : 20),
    })),
    ...barNumbers.map(({ x, number }) => ({
      what: `bar ${number}`,
      line: 'bars',
      from: x,
      to: x + 8 * String(number).length,
    })),
  ];
}

function overlapping(boxes: readonly Box[]): string[] {
  const lines = new Map<string, Box[]>();
  for (const box of boxes) lines.set(box.line, [...(lines.get(box.line) ?? []), box]);
  return [...lines.values()].flatMap((line) => {
    const sorted = line.toSorted((a, b) => a.from - b.from);
    return sorted
      .slice(1)
      .flatMap((box, i) =>
        box.from < sorted[i].to - 1e-6 ? [`${sorted[i].what} and ${box.what} on ${box.line}`] : [],
      );
  });
}

describe('any riff', () => {
  const STRINGS = 12;
  const tuning = {
    name: 'custom',
    stringsMidi: Array.from({ length: STRINGS }, (_, i) => 28 + 4 * i),
    capo: 0,
  };
  /** Up to 32nds and sextuplets, a chord or a rest of any strings and frets. */
  const riffs = fc
    .record({
      bars: fc.array(fc.constantFrom({ beats: 4, unit: 4 }, { beats: 7, unit: 8 }, { beats: 12, unit: 8 }), {
        minLength: 1,
        maxLength: 8,
      }),
      steps: fc.array(fc.constantFrom(120, 160, 240, 320, 480, 960, 3840), { minLength: 1, maxLength: 80 }),
      chords: fc.array(
        fc.uniqueArray(fc.tuple(fc.integer({ min: 1, max: STRINGS }), fc.integer({ min: 0, max: 24 })), {
          minLength: 1,
          maxLength: STRINGS,
          selector: ([string]) => string,
        }),
        { minLength: 1, maxLength: 6 },
      ),
      muted: fc.array(fc.boolean(), { minLength: 1, maxLength: 6 }),
      natural: fc.array(fc.boolean(), { minLength: 1, maxLength: 5 }),
    })
    .map(({ bars, steps, chords, muted, natural }) => {
      const end = bars.reduce((ticks, b) => ticks + (b.beats * 3840) / b.unit, 0);
      let at = 0;
      const strums = steps.flatMap((step, i) => {
        const here = at;
        at += step;
        if (here >= end) return [];
        const harmonic = natural[i % natural.length] && i % 3 === 0 ? ('natural' as const) : null;
        return [
          strum(here, chords[i % chords.length], {
            palmMute: muted[i % muted.length],
            marks: { ...RIFF.strums[0].marks, harmonic },
          }),
        ];
      });
      return { ...RIFF, bars, strums };
    });

  it('shows no two texts on each other, and no digit on hatching, at 1000, 1280 and 1920 px', () => {
    fc.assert(
      fc.property(riffs, fc.constantFrom(904, 960, 1480, 420), fc.nat(7), (riff, widthPx, page) => {
        const count = barsThatFit(riff, widthPx);
        const first = page % (riff.bars.length - count + 1);
        const starts = riff.bars.map((_, i) =>
          riff.bars.slice(0, i).reduce((ticks, b) => ticks + (b.beats * 3840) / b.unit, 0),
        );
        const last = riff.bars[first + count - 1];
        const window = {
          fromTicks: starts[first],
          toTicks: starts[first + count - 1] + (last.beats * 3840) / last.unit,
        };
        const layout = layoutRow(riff, { tuning, key: null, widthPx, window, openString: null });
        expect(overlapping(boxesOf(layout))).toEqual([]);
      }),
      { numRuns: 400 },
    );
  });
});
