/**
 * The song as MusicXML 4.0 (W3C Community Group, "MusicXML Version 4.0", 2021): a part for each guitar with a staff of notes and one of
 * tablature, strings and frets, the tuning, repeats and endings, chord symbols with frames. Times are exact: the divisions are ticks.
 */
import { type Tuning } from '../../guitar';
import { overallTempo, type SongDocument } from '../../riff';
import { alterationOf, type Key, type Meter } from '../../theory';
import { TICKS_PER_QUARTER } from '../../units';
import { songBlocks, type Block, type Measure } from './blocks';
import { measureContent, NOTE_STAFF, TAB_STAFF, type MeasureState, type Player } from './measure';
import { spelled } from './pitch';
import { element, writeXml, type Element } from './xml';

const DOCTYPE =
  '<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">\n';
/** General MIDI sound set (GM 1), counted from 1: distortion guitar. */
const DISTORTION_GUITAR = 31;
/** Fields of `miscellaneous`: what the format has no element for. */
export const FIELDS = { tuning: 'tuning', cents: 'recording-cents' } as const;

function staffDetails({ stringsMidi, capo }: Tuning, key: Key | null): Element {
  const lines = stringsMidi.map((midi, i) => {
    const { step, alter, octave } = spelled(midi, key);
    return element(
      'staff-tuning',
      { line: i + 1 },
      element('tuning-step', {}, step),
      alter === 0 ? null : element('tuning-alter', {}, alter),
      element('tuning-octave', {}, octave),
    );
  });
  return element(
    'staff-details',
    { number: TAB_STAFF },
    element('staff-lines', {}, stringsMidi.length),
    lines,
    capo > 0 ? element('capo', {}, capo) : null,
  );
}

function timeElement({ beats, unit }: Meter): Element {
  return element('time', {}, element('beats', {}, beats), element('beat-type', {}, unit));
}

/** Clefs, key and tuning, once at the start. */
function firstAttributes(bar: Meter, { tuning, key }: Player): Element {
  const clef = (number: number, ...children: Element[]): Element => element('clef', { number }, children);
  return element(
    'attributes',
    {},
    element('divisions', {}, TICKS_PER_QUARTER),
    element(
      'key',
      {},
      element('fifths', {}, key ? alterationOf(key) : 0),
      key ? element('mode', {}, key.mode) : null,
    ),
    timeElement(bar),
    element('staves', {}, 2),
    // A guitar sounds an octave under what is written; pitches here are those that sound.
    clef(NOTE_STAFF, element('sign', {}, 'G'), element('line', {}, 2), element('clef-octave-change', {}, -1)),
    clef(
      TAB_STAFF,
      element('sign', {}, 'TAB'),
      element('line', {}, Math.ceil(tuning.stringsMidi.length / 2) + 2),
    ),
    staffDetails(tuning, key),
  );
}

function directionAbove(...types: Element[]): Element {
  return element(
    'direction',
    { placement: 'above' },
    types.map((type) => element('direction-type', {}, type)),
    element('staff', {}, NOTE_STAFF),
  );
}

function tempoElement(document: SongDocument): Element | null {
  const bpm = overallTempo(document.grid);
  if (bpm === null) return null;
  const isCompound = document.grid.bars[0]?.unit === 8;
  const perMinute = Math.round(100 * bpm) / 100;
  const quarters = isCompound ? (perMinute * 3) / 2 : perMinute;
  const metronome = element(
    'metronome',
    {},
    element('beat-unit', {}, 'quarter'),
    isCompound ? element('beat-unit-dot') : null,
    element('per-minute', {}, perMinute),
  );
  return element(
    'direction',
    { placement: 'above' },
    element('direction-type', {}, metronome),
    element('staff', {}, NOTE_STAFF),
    element('sound', { tempo: quarters }),
  );
}

interface Bars {
  readonly left: Element | null;
  readonly right: Element | null;
}

function barline(location: 'left' | 'right', style: string | null, ...children: (Element | null)[]): Element {
  return element('barline', { location }, style ? element('bar-style', {}, style) : null, children);
}

const repeatStart = (ending: Element | null = null): Element =>
  barline('left', 'heavy-light', ending, element('repeat', { direction: 'forward' }));
const repeatEnd = (times: number, ending: Element | null = null): Element =>
  barline(
    'right',
    'light-heavy',
    ending,
    element('repeat', { direction: 'backward', ...(times > 2 && { times }) }),
  );

/** The measures of a block with the bar lines that say how they are repeated. */
function barred({ body, times, endings }: Block): { measure: Measure; bars: Bars }[] {
  const rows = body.map((measure, i) => ({
    measure,
    bars: {
      left: i === 0 && (times > 1 || endings.length > 0) ? repeatStart() : null,
      right: i === body.length - 1 && times > 1 ? repeatEnd(times) : null,
    },
  }));
  const last = endings.length - 1;
  return [
    ...rows,
    ...endings.flatMap(({ passes, measures }, e) => {
      const number = passes.join(', ');
      const ending = (type: string): Element =>
        element('ending', { number, type }, type === 'start' ? `${passes.join('. ')}.` : null);
      return measures.map((measure, i) => ({
        measure,
        bars: {
          left: i === 0 ? barline('left', null, ending('start')) : null,
          right:
            i < measures.length - 1
              ? null
              : e < last || passes.length > 1
                ? repeatEnd(2, ending('stop'))
                : barline('right', null, ending('stop')),
        },
      }));
    }),
  ];
}

function partMeasures(
  document: SongDocument,
  blocks: readonly Block[],
  guitar: number,
  player: Player,
): Element[] {
  const state: MeasureState = { lastName: '', isMuted: false };
  let number = 0;
  let meter = '';
  return blocks.flatMap((block) =>
    barred(block).map(({ measure, bars }, i) => {
      number++;
      const isNewMeter = meter !== `${measure.bar.beats}/${measure.bar.unit}`;
      meter = `${measure.bar.beats}/${measure.bar.unit}`;
      const attributes =
        number === 1
          ? firstAttributes(measure.bar, player)
          : isNewMeter
            ? element('attributes', {}, timeElement(measure.bar))
            : null;
      const isBegun = i === 0 && block.section !== '';
      return element(
        'measure',
        { number },
        bars.left,
        attributes,
        number === 1 ? tempoElement(document) : null,
        isBegun && block.section !== '' ? directionAbove(element('rehearsal', {}, block.section)) : null,
        i === 0 && block.letter !== ''
          ? directionAbove(element('words', { 'font-weight': 'bold' }, `Riff ${block.letter}`))
          : null,
        measureContent(measure, guitar, player, state),
        bars.right,
      );
    }),
  );
}

/** Throws nothing: a song without riffs is one empty measure. */
export function writeMusicXml(document: SongDocument): string {
  const { title, artist, tuning, guitar2, key, referenceOffsetCents } = document;
  const blocks = songBlocks(document);
  const players: Player[] = [tuning, ...(guitar2 ? [guitar2] : [])].map((t) => ({ tuning: t, key }));
  const idOf = (i: number): string => `P${i + 1}`;
  const silent: Block = {
    ...{ section: '', letter: '', times: 1, endings: [] },
    body: [
      {
        bar: { beats: 4, unit: 4 },
        ticks: 4 * TICKS_PER_QUARTER,
        guitars: players.map(() => [
          {
            ...{ strum: null, before: null, after: null, isFirst: true, isLast: true },
            from: 0,
            to: 4 * TICKS_PER_QUARTER,
          },
        ]),
      },
    ],
  };
  const field = (name: string, text: string): Element => element('miscellaneous-field', { name }, text);
  const root = element(
    'score-partwise',
    { version: '4.0' },
    element('work', {}, element('work-title', {}, title)),
    element(
      'identification',
      {},
      artist === '' ? null : element('creator', { type: 'composer' }, artist),
      element('rights', {}, 'For private study, unless the rights holder allows more.'),
      element('encoding', {}, element('software', {}, 'Wild Needle')),
      element(
        'miscellaneous',
        {},
        field(FIELDS.tuning, tuning.name),
        field(FIELDS.cents, String(referenceOffsetCents)),
      ),
    ),
    element(
      'part-list',
      {},
      players.map((_, i) =>
        element(
          'score-part',
          { id: idOf(i) },
          element('part-name', {}, players.length > 1 ? `Guitar ${i + 1}` : 'Guitar'),
          element(
            'score-instrument',
            { id: `${idOf(i)}-I1` },
            element('instrument-name', {}, 'Electric guitar'),
          ),
          element(
            'midi-instrument',
            { id: `${idOf(i)}-I1` },
            element('midi-channel', {}, i + 1),
            element('midi-program', {}, DISTORTION_GUITAR),
          ),
        ),
      ),
    ),
    players.map((player, i) =>
      element(
        'part',
        { id: idOf(i) },
        partMeasures(document, blocks.length > 0 ? blocks : [silent], i, player),
      ),
    ),
  );
  return writeXml(root, DOCTYPE);
}
