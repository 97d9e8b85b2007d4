import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '@wild-needle/core/guitar';
import { type Riff, type Strum, PLAIN_RIFF, NO_MARKS } from '@wild-needle/core/riff';
import { createFretEntry } from '../edit/fret-entry';
import { differenceWords, placeWords, variationLabel, variationName } from '../../../shared/difference-words';
import { riffCommand } from './riff-keys';
import { layoutRow } from '../tab/row-layout';
import { markWords, spokenStrum } from '../strum/strum-words';
import { archPath, slidePath, tailPath } from '../tab/strum-shapes';
import { fretText, handWords, fingeringWords } from '../strum/fingering-words';

function strum(
  startTicks: number,
  frets: readonly (readonly [number, number])[],
  marks: Partial<Strum> = {},
): Strum {
  return {
    id: String(startTicks),
    startTicks,
    durationTicks: 960,
    frets: frets.map(([string, fret]) => ({ string, fret })),
    palmMute: false,
    dead: false,
    rest: false,
    marks: NO_MARKS,
    note: '',
    trust: 'heard',
    ...marks,
  };
}
const RIFF: Riff = {
  id: 'r',
  ...PLAIN_RIFF,
  letter: 'A',
  name: 'R',
  bars: [{ beats: 4, unit: 4 }],
  strums: [
    strum(0, [
      [6, 0],
      [5, 2],
    ]),
    strum(
      960,
      [
        [6, 0],
        [5, 2],
      ],
      { palmMute: true },
    ),
    strum(1920, [], { dead: true }),
    strum(2880, [
      [6, 3],
      [5, 5],
    ]),
  ],
};
const OPTIONS = {
  tuning: STANDARD_TUNING,
  key: null,
  widthPx: 800,
  window: { fromTicks: 0, toTicks: 3840 },
  openString: null,
};

describe('row layout', () => {
  const layout = layoutRow(RIFF, OPTIONS);

  it('places strums by their time', () => {
    expect(layout.blocks.map((b) => b.x)).toEqual([0, 200, 400, 600]);
    expect(layout.counts.filter((c) => c.onBeat).map((c) => c.x)).toEqual([0, 200, 400, 600]);
    expect(layout.counts.map((c) => c.text)).toContain('&');
    const narrow = layoutRow(RIFF, { ...OPTIONS, widthPx: 120 });
    expect(narrow.counts.slice(0, -1).map((c) => c.text)).toEqual(['1', '2', '3', '4']);
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
    expect(sizes(30)[0]).toBe(14);
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

describe('marks in the row', () => {
  const marked = (marks: Partial<Strum['marks']>): ReturnType<typeof layoutRow>['blocks'] =>
    layoutRow(
      {
        ...RIFF,
        strums: [strum(0, [[6, 3]]), strum(960, [[6, 5]], { marks: { ...NO_MARKS, ...marks } })],
      },
      OPTIONS,
    ).blocks;

  it('join a slid strum to the one before, up to the right when the fret rises', () => {
    const [, slid] = marked({ join: 'slide' });
    expect(slid.joins).toEqual([{ fromX: 28, toX: 200, y: slid.digits[0].y, rises: 1 }]);
    expect(slid.stroke).toBeNull();
    const [from, to] = slidePath(slid.joins[0])
      .slice(1)
      .split('L')
      .map((point) => point.split(' ').map(Number));
    expect(from[1]).toBeGreaterThan(to[1]);
    expect(archPath(slid.joins, slid, false)).toMatch(/^M.*Q/);
  });

  it('let a ring go on under what follows, and stop a short one at a stub', () => {
    const [ringing] = layoutRow(
      {
        ...RIFF,
        strums: [
          strum(0, [[6, 3]], { marks: { ...NO_MARKS, length: 'ring' } }),
          strum(960, [[4, 5]]),
          strum(1920, [[6, 5]]),
        ],
      },
      OPTIONS,
    ).blocks;
    expect(ringing.tailX).toBe(400);
    expect(tailPath({ ...ringing, marks: { ...NO_MARKS, length: 'short' } })).toContain('h8v');
  });

  it('are told in words', () => {
    const words = (marks: Partial<Strum['marks']>, changes: Partial<Strum> = {}): string =>
      markWords(strum(0, [[6, 3]], { ...changes, marks: { ...NO_MARKS, ...marks } })).join(', ');
    expect(words({ bendCents: 100, vibrato: true })).toBe('bent by a semitone, vibrato');
    expect(words({ slideIn: 'below', whammyBar: 'dip', accent: true })).toBe(
      'slid into from below, bar dip, accent',
    );
    expect(words({}, { rest: true })).toBe('rest');
    expect(spokenStrum(strum(0, []), '')).toBe('not written yet');
    expect(spokenStrum(strum(0, [[6, 3]], { palmMute: true }), 'G')).toBe('G palm mute: string 6 fret 3');
  });
});

describe('how a pass differs, in words', () => {
  const two: Riff = { ...RIFF, bars: [...RIFF.bars, ...RIFF.bars] };
  const heard = [
    { ticks: 960, endTicks: 1440, midi: [45, 52], palmMuted: false, dead: false, confidence: 1 },
  ];
  const difference = (kind: 'chord' | 'missing' | 'early-end' | 'mute' | 'extra', ticks: number) => ({
    kind,
    ticks,
    strumId: 'x',
    heard: kind === 'missing' || kind === 'early-end' ? null : 0,
    probability: 1,
  });

  it('says the gravest first, and counts the rest', () => {
    const all = [
      difference('mute', 0),
      difference('chord', 960),
      difference('early-end', 5280),
      difference('missing', 0),
    ];
    expect(differenceWords(two, all, heard, null)).toBe(
      'Ends early, at 2 & of bar 2; A5 on 2 of bar 1 and 2 more',
    );
    expect(differenceWords(RIFF, [difference('extra', 960)], heard, null)).toBe('One more A5 on 2');
    expect(differenceWords(RIFF, [], heard, null)).toBe('');
  });

  it('names a variation by where it is', () => {
    expect(variationName(two, [difference('chord', 4000)])).toBe('Ending 2');
    expect(variationName(two, [difference('chord', 0)])).toBe('Variation 1');
    const ending = { id: 'v', name: 'Ending 2', fromTicks: 3840, toTicks: 7680, strums: [], guitar2: [] };
    expect(variationName({ ...two, variations: [ending] }, [difference('early-end', 0)])).toBe('Ending 3');
    expect(variationLabel(two, ending)).toBe('Ending 2, bar 2');
    expect(placeWords(RIFF, 720)).toBe('1 a');
  });

  it('counts what comes a little early for a bar in that bar', () => {
    expect(placeWords(two, 3700)).toBe('4 a of bar 1');
    expect(placeWords(two, 3800)).toBe('1 of bar 2');
    expect(placeWords(two, 7650)).toBe('the one after it');
  });
});

describe('ways in words', () => {
  const way = {
    frets: [
      { string: 6, fret: 3 },
      { string: 5, fret: 5 },
    ],
    notes: [43, 50],
    position: 3,
    fits: null,
    reasons: [],
    fingers: [
      { string: 6, fret: 3, finger: 1 as const },
      { string: 5, fret: 5, finger: 3 as const },
    ],
    quiet: [
      { string: 4, by: 'flat-finger' as const },
      { string: 3, by: 'flat-finger' as const },
    ],
    stretchMm: 70,
  };

  it('tell why a way is offered', () => {
    expect(fingeringWords(way, null)).toBe('At fret 3');
    const reasons = [{ kind: 'adds', midi: 55, heard: 0.9 }, { kind: 'nearest' }] as const;
    expect(fingeringWords({ ...way, reasons }, null)).toBe('With the G3 that sounds, nearest to the hand');
    expect(fingeringWords({ ...way, reasons: [{ kind: 'leaves-out', midi: 50, heard: 0.1 }] }, null)).toBe(
      'Leaves out D3, not heard',
    );
  });

  it('tell the fingers and what keeps the other strings quiet', () => {
    expect(handWords(way)).toBe('Fingers 1 3; quiet: strings 4 3 by the first finger, flat');
    expect(fretText(way.frets, 6)).toBe('3 5 · · · ·');
  });
});

describe('keys of the screen', () => {
  const press = (key: string, more: Partial<KeyboardEvent> = {}): ReturnType<typeof riffCommand> =>
    riffCommand({ key, code: '', shiftKey: false, ctrlKey: false, metaKey: false, altKey: false, ...more });

  it.each([
    ['5', {}, { do: 'digit', digit: 5 }],
    ['@', { code: 'Digit2', shiftKey: true }, { do: 'shape', index: 1 }],
    ['é', { code: 'Digit2' }, { do: 'shape', index: 1 }],
    ['2', { code: 'Digit2', altKey: true }, { do: 'own-shape', index: 1 }],
    ['m', {}, { do: 'mark', mark: 'mute' }],
    ['M', {}, { do: 'mark', mark: 'mute' }],
    ['S', {}, { do: 'mark', mark: 'slide' }],
    ['S', { shiftKey: true }, { do: 'mark', mark: 'slide-end' }],
    ['ArrowRight', {}, { do: 'step-strum', by: 1 }],
    ['ArrowRight', { shiftKey: true }, { do: 'select', by: 1 }],
    ['ArrowRight', { ctrlKey: true }, { do: 'move', by: 1 }],
    ['ArrowUp', { ctrlKey: true }, { do: 'shift', frets: 1, strings: 0 }],
    ['ArrowUp', { altKey: true }, { do: 'shift', frets: 0, strings: -1 }],
    ['Enter', { shiftKey: true }, { do: 'repeat-bar' }],
    ['(', { code: 'Digit9', shiftKey: true }, null],
    ['l', {}, null],
    ['a', {}, null],
    ['r', { ctrlKey: true }, null],
  ] as const)('%s %j does %j', (key, more, command) => {
    expect(press(key, more)).toEqual(command);
  });
});

describe('fret entry', () => {
  it('joins two quick digits at one place', () => {
    const entry = createFretEntry();
    expect(entry.type(1, 'a', 0)).toBe(1);
    expect(entry.type(2, 'a', 300)).toBe(12);
    expect(entry.type(3, 'a', 400)).toBe(3);
  });

  it.each([
    ['too late', 'a', 900, 5, 5],
    ['at another place', 'b', 100, 5, 5],
    ['beyond the neck', 'a', 100, 9, 9],
  ])('starts anew %s', (_, place, at, digit, fret) => {
    const entry = createFretEntry();
    entry.type(digit === 9 ? 2 : 1, 'a', 0);
    expect(entry.type(digit, place, at)).toBe(fret);
  });
});
