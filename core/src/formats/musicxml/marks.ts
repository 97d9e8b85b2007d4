/**
 * How a strum's marks stand in MusicXML 4.0, each way of playing in its own element where the format has one. What it has no element
 * for is an `other-technical` with a word of ours, which the reader of this folder knows again.
 */
import type { Marks, Strum } from '../../riff';
import { childOf, childrenOf, element, textOf, type Element } from './xml';

/** Words of `other-technical`. */
export const OWN_WORDS = {
  palmMute: 'palm mute',
  /** A dead stroke over all strings, whatever heads are drawn. */
  allStrings: 'all strings',
  /** A strum of its own that is reached by a tie. */
  tied: 'tied stroke',
  rest: 'stop',
  /** Struck, not written yet. */
  blank: 'not written yet',
  /** A rest of several values. */
  goesOn: 'goes on',
} as const;

const SLIDES_IN = { below: 'scoop', above: 'plop' } as const;
const SLIDES_OUT = { down: 'falloff', up: 'doit' } as const;
const STROKES = { down: 'down-bow', up: 'up-bow' } as const;
/** Cents of the bar where nothing else is known: a dip is slight, a dive goes down an octave (common practice). */
const BAR_CENTS = { dip: -100, dive: -1200 } as const;

type Parts = readonly (Element | readonly Element[] | null | false)[];

function group(name: string, parts: Parts): Element[] {
  const said = parts.flatMap((part) => (part === false ? [] : (part ?? [])));
  return said.length > 0 ? [element(name, {}, said)] : [];
}

/** It rings on: a child of `notations` where its last note ends. */
export const letRing = (): Element => element('tied', { type: 'let-ring' });

/** What stands on the staff of notes: children of `notations` at the stroke. */
export function soundMarks({ marks, palmMute, dead, frets }: Strum): Element[] {
  const own = (word: string): Element => element('other-technical', {}, word);
  return [
    ...group('ornaments', [
      marks.vibrato && [
        element('wavy-line', { type: 'start', number: 1 }),
        element('wavy-line', { type: 'stop', number: 1 }),
      ],
      marks.tremolo && element('tremolo', { type: 'single' }, 3),
    ]),
    ...group('technical', [
      marks.stroke && element(STROKES[marks.stroke]),
      marks.harmonic &&
        element('harmonic', {}, element(marks.harmonic === 'natural' ? 'natural' : 'artificial')),
      palmMute && own(OWN_WORDS.palmMute),
      dead && frets.length === 0 && own(OWN_WORDS.allStrings),
      marks.join === 'tie' && own(OWN_WORDS.tied),
    ]),
    ...group('articulations', [
      marks.accent && element('accent'),
      marks.length === 'short' && element('staccato'),
      marks.slideIn && element(SLIDES_IN[marks.slideIn]),
      marks.slideOut && element(SLIDES_OUT[marks.slideOut]),
    ]),
  ];
}

/** What stands on the tablature: children of `technical` at the stroke. */
export function handMarks({ marks }: Strum): Element[] {
  const parts: Parts = [
    marks.bendCents > 0 && element('bend', {}, element('bend-alter', {}, marks.bendCents / 100)),
    marks.whammyBar &&
      element(
        'bend',
        {},
        element('bend-alter', {}, BAR_CENTS[marks.whammyBar] / 100),
        element('with-bar', {}, marks.whammyBar),
      ),
  ];
  return parts.flatMap((part) => (part === false ? [] : (part ?? [])));
}

function keyOf<K extends string>(
  table: Readonly<Record<K, string>>,
  has: (name: string) => boolean,
): K | null {
  return (Object.keys(table) as K[]).find((key) => has(table[key])) ?? null;
}

/** What the notations of a note say; slides, hammer-ons and ties are read from where they begin and end. */
export function marksFrom(notations: readonly Element[]): {
  readonly marks: Partial<Marks>;
  readonly own: ReadonlySet<string>;
} {
  const groups = (name: string): Element[] => notations.flatMap((n) => childrenOf(n, name));
  const technical = groups('technical');
  const isIn = (parents: readonly Element[]) => (name: string) =>
    parents.some((p) => childOf(p, name) !== null);
  const [isTechnical, isArticulated, isOrnament] = [
    isIn(technical),
    isIn(groups('articulations')),
    isIn(groups('ornaments')),
  ];
  const bends = technical.flatMap((t) => childrenOf(t, 'bend'));
  const cents = (bend: Element): number => Math.round(100 * Number(textOf(childOf(bend, 'bend-alter'))) || 0);
  const bar = bends.find((b) => childOf(b, 'with-bar') !== null);
  const up = bends.filter((b) => b !== bar).map(cents);
  const own = new Set(technical.flatMap((t) => childrenOf(t, 'other-technical').map(textOf)));
  const isRinging = groups('tied').some((t) => t.attributes['type'] === 'let-ring');
  const isHarmonic = isTechnical('harmonic');
  const isArtificial = technical.some((t) => childOf(t, 'harmonic', 'artificial') !== null);
  return {
    own,
    marks: {
      stroke: keyOf(STROKES, isTechnical),
      slideIn: keyOf(SLIDES_IN, isArticulated),
      slideOut: keyOf(SLIDES_OUT, isArticulated),
      accent: isArticulated('accent') || isArticulated('strong-accent'),
      length: isRinging
        ? 'ring'
        : isArticulated('staccato') || isArticulated('staccatissimo')
          ? 'short'
          : null,
      vibrato: isOrnament('wavy-line'),
      tremolo: isOrnament('tremolo'),
      harmonic: isHarmonic ? (isArtificial ? 'pinch' : 'natural') : null,
      bendCents: Math.max(0, ...up),
      whammyBar: bar ? (cents(bar) <= -600 ? 'dive' : 'dip') : null,
    },
  };
}
