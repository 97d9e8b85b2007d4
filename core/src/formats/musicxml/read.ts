/**
 * MusicXML brought in, also compressed (.mxl): strings and frets from tablature, notes without them fingered; rehearsal marks become
 * sections, repeats and endings passes and variations.
 */
import { strFromU8, unzipSync } from 'fflate';
import { TUNINGS, type Tuning } from '../../guitar';
import type { Strum } from '../../riff';
import { KEY_MODES, keyOn, type Key } from '../../theory';
import { TICKS_PER_QUARTER, type Ticks } from '../../units';
import { assembleSong, foldRepeats, type BroughtMeasure, type BroughtPart } from '../assemble';
import type { Brought, ReadOptions, Remark } from '../brought';
import { decodeText } from '../decode-text';
import { fingerNotes } from '../finger-notes';
import { heldOn, readPart, type ReadMeasure, type ReadPart } from './read-measures';
import { FIELDS } from './write';
import { childOf, childrenOf, readXml, textOf, type Element } from './xml';

/** Of a score after unpacking; the longest songs are a tenth of it. */
const MOST_BYTES = 40_000_000;
const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

/** The score of a compressed file, named by its container (MusicXML 4.0, "Compressed .mxl files"). */
function unpack(bytes: Uint8Array): Uint8Array {
  let size = 0;
  const files = ((): Record<string, Uint8Array> => {
    try {
      return unzipSync(bytes, {
        filter: ({ name, originalSize }) => {
          size += originalSize;
          if (size > MOST_BYTES) throw new RangeError('unpacked it is larger than any score');
          return /\.(xml|musicxml)$/i.test(name);
        },
      });
    } catch (cause) {
      if (cause instanceof RangeError) throw cause;
      throw new RangeError('it is packed, and can’t be unpacked: the file is damaged', { cause });
    }
  })();
  const container = files['META-INF/container.xml'];
  const rootFile = container && childOf(readXml(strFromU8(container)), 'rootfiles', 'rootfile');
  const named = rootFile?.attributes['full-path'];
  const score = named ? files[named] : Object.entries(files).find(([n]) => !n.startsWith('META-INF'))?.[1];
  if (!score) throw new RangeError('it is packed, and no score is in it');
  return score;
}

/** The circle of fifths from C (any handbook of harmony). */
function keyFrom(fifths: number | null, mode: string): Key | null {
  const known = KEY_MODES.find((m) => m === mode);
  if (fifths === null || !known || Math.abs(fifths) > 7) return null;
  const major = (((fifths * 7) % 12) + 12) % 12;
  return keyOn(known === 'major' ? major : (major + 9) % 12, known);
}

function namedTuning(tuning: Tuning | null, name: string): Tuning | null {
  if (!tuning) return null;
  const strings = tuning.stringsMidi.join();
  const known = TUNINGS.find((t) => t.name === name && t.strings.join() === strings);
  const any = TUNINGS.find((t) => t.strings.join() === strings);
  return { ...tuning, name: (known ?? any)?.name ?? 'custom' };
}

/** A stretch of measures with how it is repeated. */
interface Stretch {
  readonly name: string;
  readonly letter: string;
  readonly body: number[];
  times: number;
  readonly endings: { readonly passes: readonly number[]; readonly measures: number[] }[];
}

/** Measures between the signs that part them: where a section or a riff begins, and repeats. */
function stretchesOf(measures: readonly ReadMeasure[]): Stretch[] {
  const stretches: Stretch[] = [];
  let current: Stretch | null = null;
  let isClosed = true;
  let isInEnding = false;
  measures.forEach((measure, i) => {
    const begins = measure.rehearsal !== '' || measure.letter !== '' || measure.isRepeatStart;
    const isEnding = measure.endingStart.length > 0;
    if (!current || begins || (isClosed && !isEnding)) {
      current = { name: measure.rehearsal, letter: measure.letter, body: [], times: 1, endings: [] };
      stretches.push(current);
      isInEnding = false;
    }
    if (isEnding) {
      current.endings.push({ passes: measure.endingStart, measures: [] });
      isInEnding = true;
    }
    (isInEnding ? current.endings.at(-1)!.measures : current.body).push(i);
    isClosed = false;
    if (measure.isEndingEnd) {
      isInEnding = false;
      isClosed = true;
    } else if (measure.repeatTimes > 0 && !isInEnding) {
      current.times = measure.repeatTimes;
      isClosed = true;
    }
  });
  return stretches;
}

/** Each pass of a stretch, as measures of the part. */
function passesOf({ body, times, endings }: Stretch): number[][] {
  if (endings.length === 0) return Array.from({ length: times }, () => body);
  const last = Math.max(...endings.flatMap((e) => e.passes));
  return Array.from({ length: last }, (_, pass) => {
    const ending = endings.find((e) => e.passes.includes(pass + 1));
    return [...body, ...(ending?.measures ?? [])];
  });
}

/** A measure with strums that may be tied from the one that is played before. */
interface OpenMeasure extends Pick<BroughtMeasure, 'bar'> {
  readonly guitars: readonly (readonly { readonly strum: Strum; readonly isHeldOver: boolean }[])[];
}

/** The measures of a pass, as they are played: what is tied over a bar line is one strum. */
function asPlayed(pass: readonly OpenMeasure[]): BroughtMeasure[] {
  const guitars = [0, 1].map((guitar) => {
    const played: Strum[][] = [];
    /** The last strum, counted from the start of the measure that follows it. */
    let last: { readonly measure: number; readonly startTicks: Ticks } | null = null;
    pass.forEach(({ bar, guitars: all }, m) => {
      const strums: Strum[] = [];
      played.push(strums);
      for (const { strum, isHeldOver } of all[guitar] ?? []) {
        const before = last && played[last.measure].at(-1);
        const longer =
          isHeldOver && last && before
            ? heldOn({ midi: [], strum: { ...before, startTicks: last.startTicks } }, { midi: [], strum })
            : null;
        if (longer && last && before) {
          const own = { ...longer.strum, startTicks: before.startTicks };
          played[last.measure].splice(-1, 1, own);
          continue;
        }
        // Silence that goes on from nowhere is silence.
        if (isHeldOver && strum.frets.length === 0) continue;
        strums.push(strum);
        last = { measure: m, startTicks: strum.startTicks };
      }
      if (last)
        last = { ...last, startTicks: last.startTicks - (bar.beats * 4 * TICKS_PER_QUARTER) / bar.unit };
    });
    return played;
  });
  return pass.map(({ bar }, m) => ({ bar, strums: guitars[0][m], guitar2: guitars[1][m] }));
}

/** Sections from stretches: one that has no name goes on with the one before. */
function partsOf(measures: readonly ReadMeasure[], open: readonly OpenMeasure[]): BroughtPart[] {
  const stretches = stretchesOf(measures);
  const hasStructure = stretches.some((s) => s.name !== '' || s.times > 1 || s.endings.length > 0);
  if (!hasStructure) return [{ name: '', letter: '', passes: foldRepeats(asPlayed(open)) }];
  const parts: { name: string; letter: string; passes: (readonly BroughtMeasure[])[] }[] = [];
  for (const stretch of stretches) {
    const passes = passesOf(stretch).map((pass) => asPlayed(pass.map((i) => open[i])));
    const last = parts.at(-1);
    const isSame = last && stretch.name === '' && (stretch.letter === '' || stretch.letter === last.letter);
    if (isSame && last.name !== '') last.passes.push(...passes);
    else parts.push({ name: stretch.name, letter: stretch.letter, passes });
  }
  return parts.filter((part) => part.passes.some((pass) => pass.length > 0));
}

function partNames(root: Element): Map<string, string> {
  return new Map(
    childrenOf(childOf(root, 'part-list') ?? root, 'score-part').map((part) => [
      part.attributes['id'] ?? '',
      textOf(childOf(part, 'part-name')) || 'Part without a name',
    ]),
  );
}

/** Throws a RangeError that says what can't be read and where. */
export function readMusicXml(bytes: Uint8Array, options: ReadOptions): Brought {
  const root = readXml(decodeText(isZip(bytes) ? unpack(bytes) : bytes));
  if (root.name === 'score-timewise') {
    throw new RangeError('line 1: the score is written time by time; save it part by part (score-partwise)');
  }
  if (root.name !== 'score-partwise') {
    throw new RangeError(`line 1: this is XML, and no score: its first element is <${root.name}>`);
  }
  const names = partNames(root);
  const parts = childrenOf(root, 'part').map((part) =>
    readPart(part, names.get(part.attributes['id'] ?? '') ?? 'Part without a name'),
  );
  const notesIn = (part: ReadPart): number => part.measures.reduce((sum, m) => sum + m.strums.length, 0);
  if (parts.every((part) => notesIn(part) === 0)) throw new RangeError('there are no notes in this score');
  const likeliest = Math.max(
    0,
    parts.some((p) => p.hasTablature)
      ? parts.findIndex((p) => p.hasTablature)
      : parts.findIndex((p) => notesIn(p) === Math.max(...parts.map(notesIn))),
  );
  const track = options.track !== undefined && parts[options.track] ? options.track : likeliest;
  const chosen = parts[track];
  const partner = chosen.hasTablature ? parts.find((p, i) => i > track && p.hasTablature) : undefined;
  const field = (name: string): string =>
    textOf(
      childrenOf(childOf(root, 'identification', 'miscellaneous') ?? root, 'miscellaneous-field').find(
        (f) => f.attributes['name'] === name,
      ) ?? null,
    );
  const tuning = namedTuning(chosen.tuning, field(FIELDS.tuning));
  const remarks: Remark[] = [];
  const fingered = (part: ReadPart, on: Tuning): OpenMeasure['guitars'] => {
    const all = part.measures.flatMap((m) => m.strums);
    const { strums, lost } = fingerNotes(all, on);
    if (lost > 0) {
      const words = `${lost} ${lost === 1 ? 'note' : 'notes'} of ${part.name} can’t be played in this tuning`;
      remarks.push({ line: null, column: null, words });
    }
    const open = strums.map((strum, i) => ({ strum, isHeldOver: all[i].isHeldOver }));
    let at = 0;
    return part.measures.map((m) => open.slice(at, (at += m.strums.length)));
  };
  const first = fingered(chosen, tuning ?? options.tuning);
  const second = partner ? fingered(partner, partner.tuning ?? options.tuning) : null;
  const measures = chosen.measures.map(({ bar }, i): OpenMeasure => ({
    bar,
    guitars: [first[i], second?.[i] ?? []],
  }));
  const creator = childrenOf(childOf(root, 'identification') ?? root, 'creator')[0] ?? null;
  return {
    remarks,
    track,
    tracks: parts.length > 1 ? parts.map((part) => ({ name: part.name, notes: notesIn(part) })) : [],
    document: assembleSong({
      title: textOf(childOf(root, 'work', 'work-title')) || textOf(childOf(root, 'movement-title')),
      artist: textOf(creator),
      tuning: tuning ?? options.tuning,
      guitar2: partner ? (namedTuning(partner.tuning, '') ?? options.tuning) : null,
      key: keyFrom(chosen.fifths, chosen.mode),
      bpm: chosen.bpm,
      referenceOffsetCents: Number(field(FIELDS.cents)) || 0,
      parts: partsOf(chosen.measures, measures),
    }),
  };
}
