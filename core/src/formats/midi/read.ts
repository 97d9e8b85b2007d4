/**
 * A Standard MIDI file brought in: one track becomes strums, fingered in a tuning; tempo and meter are those of the file, its markers
 * begin sections. What MIDI can't say is guessed from the instrument: notes of "Electric Guitar (muted)" are palm-muted.
 */
import { parseMidi, type MidiData } from 'midi-file';
import { isUnit, NO_MARKS, PLAIN_STRUM, quantise, type RiffBar, type Strum } from '../../riff';
import { TICKS_PER_QUARTER, type MidiNote, type Ticks } from '../../units';
import { assembleSong, foldRepeats, type BroughtMeasure, type BroughtPart } from '../assemble';
import type { Brought, ReadOptions, Remark } from '../brought';
import { fingerNotes, type UnfingeredStrum } from '../finger-notes';
import { MUTED_GUITAR } from './write';

/** General MIDI (GM 1), counted from 0: programs 24 to 31 are guitars; channel 10 is the drums. */
const GUITARS = { from: 24, to: 31 };
const DRUM_CHANNEL = 9;
/** Strings that are struck together are never this far apart; the shortest notes are. */
const TOGETHER: Ticks = TICKS_PER_QUARTER / 16;
/** More than any hand plays on one guitar. */
const MOST_NOTES = 200_000;
const MOST_BARS = 10_000;

interface Note {
  readonly at: Ticks;
  end: Ticks;
  readonly midi: MidiNote;
  readonly isMuted: boolean;
}

interface Voice {
  readonly name: string;
  readonly notes: Note[];
  readonly isGuitar: boolean;
}

interface Conductor {
  readonly meters: readonly { readonly at: Ticks; readonly bar: RiffBar }[];
  readonly markers: readonly { readonly at: Ticks; readonly name: string }[];
  readonly quarterUs: number | null;
  readonly title: string;
}

const CUT_OFF = 'it is no MIDI file that can be read, or it is cut off';

/** Every chunk is as long as it says (Standard MIDI Files 1.0): the parser takes what is missing for silence. */
function requireWhole(bytes: Uint8Array): void {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let at = 0; at < bytes.length;) {
    const end = at + 8 <= bytes.length ? at + 8 + view.getUint32(at + 4) : Infinity;
    if (end > bytes.length) throw new RangeError(CUT_OFF);
    at = end;
  }
}

function parsed(bytes: Uint8Array): MidiData {
  requireWhole(bytes);
  try {
    return parseMidi(bytes);
  } catch (cause) {
    throw new RangeError(CUT_OFF, { cause });
  }
}

/** Notes of each track and channel of it; a note that is struck again ends there. */
function voicesOf({ tracks }: MidiData, ticks: (own: number) => Ticks): Voice[] {
  let count = 0;
  return tracks.flatMap((track, t) => {
    let [at, trackName] = [0, ''];
    const programs = new Map<number, number>();
    const open = new Map<number, Note>();
    const voices = new Map<string, Voice>();
    for (const event of track) {
      at += event.deltaTime;
      if (event.type === 'trackName') trackName ||= event.text.trim();
      if (event.type === 'programChange') programs.set(event.channel, event.programNumber);
      if (event.type !== 'noteOn' && event.type !== 'noteOff') continue;
      const { channel, noteNumber } = event;
      if (channel === DRUM_CHANNEL) continue;
      const key = 128 * channel + noteNumber;
      const before = open.get(key);
      if (before) before.end = ticks(at);
      open.delete(key);
      if (event.type === 'noteOff' || event.velocity === 0) continue;
      if (++count > MOST_NOTES) throw new RangeError(`it has more than ${MOST_NOTES} notes`);
      const program = programs.get(channel) ?? 0;
      const isGuitar = program >= GUITARS.from && program <= GUITARS.to;
      const note: Note = {
        at: ticks(at),
        end: ticks(at),
        midi: noteNumber,
        isMuted: program === MUTED_GUITAR,
      };
      open.set(key, note);
      // The guitars of one track are one player with several sounds.
      const id = isGuitar ? 'guitar' : String(channel);
      const voice = voices.get(id) ?? { name: '', notes: [], isGuitar };
      voice.notes.push(note);
      voices.set(id, voice);
    }
    for (const note of open.values()) note.end = Math.max(note.end, ticks(at));
    const names = [...voices.values()];
    return names.map((voice, i) => ({
      ...voice,
      name: (trackName || `Track ${t + 1}`) + (names.length > 1 ? ` (${i + 1})` : ''),
    }));
  });
}

function conductorOf({ tracks }: MidiData, ticks: (own: number) => Ticks): Conductor {
  const meters: { at: Ticks; bar: RiffBar }[] = [];
  const markers: { at: Ticks; name: string }[] = [];
  let quarterUs: number | null = null;
  let title = '';
  tracks.forEach((track, t) => {
    let at = 0;
    for (const event of track) {
      at += event.deltaTime;
      if (event.type === 'timeSignature') {
        const { numerator: beats, denominator: unit } = event;
        if (isUnit(unit) && beats >= 1 && beats <= 32) meters.push({ at: ticks(at), bar: { beats, unit } });
      }
      if (event.type === 'setTempo') quarterUs ??= event.microsecondsPerBeat;
      if (event.type === 'marker') markers.push({ at: ticks(at), name: event.text.trim() });
      if (event.type === 'trackName' && t === 0) title = event.text.trim();
    }
  });
  meters.sort((a, b) => a.at - b.at);
  markers.sort((a, b) => a.at - b.at);
  return { meters, markers, quarterUs, title };
}

/** Bars until nothing sounds any more; without a meter in fours (Standard MIDI Files 1.0). */
function barsOf({ meters }: Conductor, end: Ticks): { readonly start: Ticks; readonly bar: RiffBar }[] {
  const bars: { start: Ticks; bar: RiffBar }[] = [];
  let [start, bar]: [Ticks, RiffBar] = [0, { beats: 4, unit: 4 }];
  while (start < end || bars.length === 0) {
    bar = meters.findLast((m) => m.at <= start)?.bar ?? bar;
    bars.push({ start, bar });
    if (bars.length > MOST_BARS) throw new RangeError(`it is longer than ${MOST_BARS} bars`);
    start += (bar.beats * 4 * TICKS_PER_QUARTER) / bar.unit;
  }
  return bars;
}

/** Notes that begin together are one strum, on the nearest sixteenth or triplet. */
function strumsOf(notes: readonly Note[]): UnfingeredStrum[] {
  const sorted = [...notes].sort((a, b) => a.at - b.at || a.midi - b.midi);
  const groups: Note[][] = [];
  for (const note of sorted) {
    const last = groups.at(-1);
    if (last && note.at - last[0].at <= TOGETHER) last.push(note);
    else groups.push([note]);
  }
  const starts = quantise(groups.map(([first]) => first.at));
  return groups.flatMap((group, i): UnfingeredStrum[] => {
    if (i > 0 && starts[i] === starts[i - 1]) return [];
    const ends = Math.max(...group.map((n) => n.end));
    const strum: Strum = {
      ...PLAIN_STRUM,
      id: '',
      startTicks: starts[i],
      durationTicks: Math.max(1, ends - group[0].at),
      palmMute: group.every((n) => n.isMuted),
      marks: NO_MARKS,
      trust: 'guessed',
    };
    return [{ strum, midi: [...new Set(group.map((n) => n.midi))].sort((a, b) => a - b) }];
  });
}

/** Throws a RangeError that says what can't be read. */
export function readMidiFile(bytes: Uint8Array, options: ReadOptions): Brought {
  const midi = parsed(bytes);
  const { ticksPerBeat } = midi.header;
  if (!ticksPerBeat) throw new RangeError('its time is counted in frames of film, not in beats');
  const ticks = (own: number): Ticks => Math.round((own * TICKS_PER_QUARTER) / ticksPerBeat);
  const voices = voicesOf(midi, ticks).filter((v) => v.notes.length > 0);
  if (voices.length === 0) throw new RangeError('there are no notes in this file, or only drums');
  const mostNotes = Math.max(...voices.map((v) => v.notes.length));
  const likeliest = voices.findIndex((v) => v.isGuitar);
  const wanted = options.track !== undefined && voices[options.track] ? options.track : likeliest;
  const track = wanted >= 0 ? wanted : voices.findIndex((v) => v.notes.length === mostNotes);
  const conductor = conductorOf(midi, ticks);
  const remarks: Remark[] = [];
  const { strums, lost } = fingerNotes(strumsOf(voices[track].notes), options.tuning);
  if (lost > 0) {
    const words = `${lost} ${lost === 1 ? 'note' : 'notes'} can’t be played in this tuning`;
    remarks.push({ line: null, column: null, words });
  }
  const played = strums.filter((s) => s.frets.length > 0);
  const end = Math.max(0, ...voices[track].notes.map((n) => n.end));
  const bars = barsOf(conductor, end);
  const measures = bars.map(({ start, bar }, i): BroughtMeasure => {
    const next = bars[i + 1]?.start ?? Infinity;
    const own = played.filter((s) => s.startTicks >= start && s.startTicks < next);
    return {
      bar,
      strums: own.map((s) => ({ ...s, startTicks: s.startTicks - start })),
      guitar2: [],
    };
  });
  return {
    remarks,
    track,
    tracks: voices.length > 1 ? voices.map((v) => ({ name: v.name, notes: v.notes.length })) : [],
    document: assembleSong({
      title: conductor.title,
      artist: '',
      tuning: options.tuning,
      guitar2: null,
      key: null,
      bpm: conductor.quarterUs ? 60_000_000 / conductor.quarterUs : null,
      referenceOffsetCents: 0,
      parts: partsOf(
        measures,
        bars.map((b) => b.start),
        conductor.markers,
      ),
    }),
  };
}

/** From marker to marker; bars before the first one are a part of their own, unless they are silent. */
function partsOf(
  measures: readonly BroughtMeasure[],
  starts: readonly Ticks[],
  markers: Conductor['markers'],
): BroughtPart[] {
  const cuts = markers.map((m) => ({ name: m.name, bar: starts.findLastIndex((s) => s <= m.at + TOGETHER) }));
  const all = [...(cuts[0]?.bar === 0 ? [] : [{ name: '', bar: 0 }]), ...cuts];
  return all
    .map(({ name, bar }, i) => ({ name, measures: measures.slice(bar, all[i + 1]?.bar ?? measures.length) }))
    .filter(
      ({ name, measures: own }) => own.length > 0 && (name !== '' || own.some((m) => m.strums.length > 0)),
    )
    .map(({ name, measures: own }) => ({ name, letter: '', passes: foldRepeats(own) }));
}
