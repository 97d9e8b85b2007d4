/**
 * A Standard MIDI file (format 1; The MIDI Association, "Standard MIDI Files 1.0", RP-001): the tempo map of the recording, sections as
 * markers, and a track for each guitar with every pass played out, so that the file lies on the recording from its first second.
 *
 * Ringing and palm-muted strings are two channels with two instruments of General MIDI, since a note of MIDI can't be muted. Bends,
 * slides and vibrato are pitch wheel, over a range that is set at the start. What MIDI can't say (strings, frets, fingers) is lost.
 */
import { writeMidi, type MidiEvent } from 'midi-file';
import {
  performDocument,
  sectionTimesS,
  swapGuitars,
  ticksPerBeat,
  type PlayedStrum,
  type SongDocument,
} from '../../riff';
import { TICKS_PER_QUARTER, type MidiNote, type Ticks } from '../../units';

/** General MIDI sound set (GM 1), counted from 0: electric guitar (muted) and distortion guitar. */
export const MUTED_GUITAR = 28;
const DISTORTION_GUITAR = 30;
/** Channels of a guitar: ringing, then muted. The tenth is for drums. */
const CHANNELS = [
  [0, 1],
  [2, 3],
] as const;
/** Semitones to both sides that the wheel reaches: a dive of the bar, and an octave. */
const WHEEL_RANGE = 12;
/** Of the wheel, to one side (14 bits, signed). */
const WHEEL_MOST = 8191;
/** The wheel moves in steps this short, seconds. */
const WHEEL_STEP_S = 0.01;
const VELOCITY = 88;
/** A dead stroke clicks softly on the lowest string. */
const DEAD_VELOCITY = 30;
/** Without beats time runs in quarters of half a second. */
const PLAIN_QUARTER_S = 0.5;

/** Less silence before the first beat is none. */
const SHORTEST_LEAD = TICKS_PER_QUARTER / 16;

/** An event at an instant of the file. */
interface Placed {
  readonly ticks: number;
  /** Of events at one instant, the lower comes first: a note ends before the next begins. */
  readonly order: number;
  readonly event: MidiEvent;
}

interface TempoMap {
  readonly ticksAt: (timeS: number) => number;
  /** Where the length of a quarter changes, and to what. */
  readonly tempi: readonly { readonly ticks: number; readonly quarterS: number }[];
  readonly beatTicks: readonly number[];
}

/** What comes before the first beat is made whole bars, by its tempo: then bars are bars for every other program too. */
function leadTicks(bars: SongDocument['grid']['bars'], lengths: readonly Ticks[], own: Ticks): Ticks {
  const [first] = bars;
  if (!first || own < SHORTEST_LEAD) return Math.max(0, own);
  const bar = first.beats * ticksPerBeat(first.unit);
  const toBar = lengths.slice(0, first.beat).reduce((sum, l) => sum + l, 0);
  const whole = Math.max(1, Math.round((own + toBar) / bar)) * bar - toBar;
  return whole > 0 ? whole : whole + Math.ceil((1 - whole) / bar) * bar;
}

/** The recording's own beats as tempo; before the first and after the last one the nearest tempo goes on. */
function tempoMapOf({ grid }: SongDocument): TempoMap {
  const { beatsS, bars } = grid;
  if (beatsS.length < 2) {
    const ticksAt = (timeS: number): number => Math.round((timeS / PLAIN_QUARTER_S) * TICKS_PER_QUARTER);
    return { ticksAt, tempi: [{ ticks: 0, quarterS: PLAIN_QUARTER_S }], beatTicks: [] };
  }
  const unitOf = (beat: number): number => bars.findLast((b) => b.beat <= beat)?.unit ?? bars[0]?.unit ?? 4;
  const lengths = beatsS.slice(1).map((_, i) => ticksPerBeat(unitOf(i)));
  const periods = beatsS.slice(1).map((timeS, i) => timeS - beatsS[i]);
  const quarters = periods.map((s, i) => (s * TICKS_PER_QUARTER) / lengths[i]);
  const lead = leadTicks(bars, lengths, Math.round((beatsS[0] / quarters[0]) * TICKS_PER_QUARTER));
  const beatTicks = [lead];
  lengths.forEach((length, i) => beatTicks.push(beatTicks[i] + length));
  const ticksAt = (timeS: number): number => {
    const beat = Math.min(
      lengths.length - 1,
      Math.max(
        0,
        beatsS.findLastIndex((t) => t <= timeS),
      ),
    );
    const ticks = beatTicks[beat] + ((timeS - beatsS[beat]) / quarters[beat]) * TICKS_PER_QUARTER;
    return Math.max(0, Math.round(ticks));
  };
  const first = { ticks: 0, quarterS: lead > 0 ? (beatsS[0] * TICKS_PER_QUARTER) / lead : quarters[0] };
  return {
    ticksAt,
    tempi: [first, ...quarters.map((quarterS, i) => ({ ticks: beatTicks[i], quarterS }))],
    beatTicks,
  };
}

/** In order, as MIDI wants them: each so long after the one before. */
function trackOf(placed: readonly Placed[]): MidiEvent[] {
  let last = 0;
  const events = [...placed]
    .sort((a, b) => a.ticks - b.ticks || a.order - b.order)
    .map(({ ticks, event }): MidiEvent => {
      const deltaTime = ticks - last;
      last = ticks;
      return { ...event, deltaTime };
    });
  return [...events, { deltaTime: 0, type: 'endOfTrack', meta: true }];
}

function conductor(document: SongDocument, { ticksAt, tempi, beatTicks }: TempoMap): MidiEvent[] {
  const { grid, sections, title } = document;
  const meta = (ticks: number, event: object): Placed => ({
    ticks,
    order: 0,
    // The delta is set when all stand in order.
    event: { deltaTime: 0, meta: true, ...event } as unknown as MidiEvent,
  });
  const meters = grid.bars.flatMap((bar, i): Placed[] => {
    const before = grid.bars[i - 1];
    if (before?.beats === bar.beats && before.unit === bar.unit) return [];
    const ticks = i === 0 ? 0 : (beatTicks[bar.beat] ?? 0);
    return [
      meta(ticks, {
        type: 'timeSignature',
        numerator: bar.beats,
        denominator: bar.unit,
        metronome: 24,
        thirtyseconds: 8,
      }),
    ];
  });
  let before = 0;
  const changes = tempi.flatMap(({ ticks, quarterS }): Placed[] => {
    const microseconds = Math.round(1e6 * quarterS);
    if (microseconds === before) return [];
    before = microseconds;
    return [meta(ticks, { type: 'setTempo', microsecondsPerBeat: microseconds })];
  });
  const markers = sections.flatMap((section): Placed[] => {
    const times = sectionTimesS(document, section);
    return times ? [meta(ticksAt(times.startS), { type: 'marker', text: section.name })] : [];
  });
  return trackOf([meta(0, { type: 'trackName', text: title }), ...meters, ...changes, ...markers]);
}

/** How far the pitch is moved at a time after the stroke; straight lines between the points. */
function movedAt(moves: PlayedStrum['notes'][number]['moves'], afterS: number): number {
  const next = moves.findIndex((m) => m.afterS >= afterS);
  if (next < 0) return moves.at(-1)?.semitones ?? 0;
  const [a, b] = [moves[next - 1] ?? { afterS: 0, semitones: 0 }, moves[next]];
  const share = b.afterS > a.afterS ? (afterS - a.afterS) / (b.afterS - a.afterS) : 1;
  return a.semitones + share * (b.semitones - a.semitones);
}

function guitarTrack(
  name: string,
  strums: readonly PlayedStrum[],
  lowest: MidiNote,
  [ringing, muted]: readonly [number, number],
  { ticksAt }: TempoMap,
): MidiEvent[] {
  const placed: Placed[] = [];
  const put = (ticks: number, order: number, event: object): void => {
    placed.push({ ticks, order, event: { deltaTime: 0, ...event } as unknown as MidiEvent });
  };
  put(0, 0, { type: 'trackName', meta: true, text: name });
  for (const [channel, programNumber] of [
    [ringing, DISTORTION_GUITAR],
    [muted, MUTED_GUITAR],
  ]) {
    put(0, 0, { type: 'programChange', channel, programNumber });
    // Registered parameter 0: the range of the wheel, in semitones.
    for (const [controllerType, value] of [
      [101, 0],
      [100, 0],
      [6, WHEEL_RANGE],
      [38, 0],
    ]) {
      put(0, 0, { type: 'controller', channel, controllerType, value });
    }
  }
  const wheel = (channel: number, ticks: number, semitones: number): void => {
    const share = Math.min(1, Math.max(-1, semitones / WHEEL_RANGE));
    put(ticks, 1, { type: 'pitchBend', channel, value: Math.round(WHEEL_MOST * share) });
  };
  let isBent = false;
  for (const { timeS, notes, palmMute, dead, level } of strums) {
    const channel = palmMute || dead ? muted : ringing;
    const startTicks = ticksAt(timeS);
    const strike = (noteNumber: MidiNote, velocity: number, endS: number): void => {
      const endTicks = Math.max(startTicks + 1, ticksAt(endS));
      put(startTicks, 2, { type: 'noteOn', channel, noteNumber, velocity });
      put(endTicks, 0, { type: 'noteOff', channel, noteNumber, velocity: 0 });
    };
    if (dead) {
      strike(lowest, DEAD_VELOCITY, timeS);
      continue;
    }
    const velocity = Math.min(127, Math.max(1, Math.round(VELOCITY * level)));
    for (const { midi, endS } of notes) strike(midi, velocity, endS);
    // The wheel moves a channel as a whole: the note that moves most has the say.
    const moving = notes.find((n) => n.moves.length > 0);
    if (moving) {
      isBent = true;
      for (let t = 0; timeS + t < moving.endS; t += WHEEL_STEP_S) {
        wheel(channel, ticksAt(timeS + t), movedAt(moving.moves, t));
      }
    } else if (isBent) {
      isBent = false;
      wheel(ringing, startTicks, 0);
      wheel(muted, startTicks, 0);
    }
  }
  return trackOf(placed);
}

/** Throws nothing: a song without beats, riffs or sections is a file with no notes. */
export function writeMidiFile(document: SongDocument): Uint8Array {
  const map = tempoMapOf(document);
  const guitars = [document, ...(document.guitar2 ? [swapGuitars(document)] : [])];
  const tracks = guitars.map((song, i) => {
    const [lowest = 40] = song.tuning.stringsMidi;
    const name = guitars.length > 1 ? `Guitar ${i + 1}` : 'Guitar';
    return guitarTrack(name, performDocument(song), lowest + song.tuning.capo, CHANNELS[i], map);
  });
  return Uint8Array.from(
    writeMidi({
      header: { format: 1, numTracks: tracks.length + 1, ticksPerBeat: TICKS_PER_QUARTER },
      tracks: [conductor(document, map), ...tracks],
    }),
  );
}
