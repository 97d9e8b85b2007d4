import { parseMidi, type MidiData, type MidiEvent } from 'midi-file';
import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '../../guitar';
import { performDocument, rewriteStrums, type SongDocument } from '../../riff';
import { NO_MARKS } from '../../riff';
import { PLAIN_RIFF, PLAIN_SECTION, PLAIN_SONG, PLAIN_STRUM } from '../../riff';
import { writeMidiFile } from './write';

/** A band that slows down: beats of .5 s, then of .6 s. */
const SONG: SongDocument = {
  ...PLAIN_SONG,
  title: 'T',
  grid: {
    beatsS: [
      ...Array.from({ length: 8 }, (_, i) => 0.7 + i / 2),
      ...Array.from({ length: 9 }, (_, i) => 4.7 + 0.6 * i),
    ],
    bars: Array.from({ length: 4 }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 as const })),
  },
  riffs: [
    {
      ...{ ...PLAIN_RIFF, id: 'a', letter: 'A', name: 'A', bars: [{ beats: 4, unit: 4 }] },
      strums: [0, 960, 1440].map((startTicks, i) => ({
        ...PLAIN_STRUM,
        id: `s${i}`,
        startTicks,
        durationTicks: 480,
        frets: [
          { string: 6, fret: 2 * i },
          { string: 5, fret: 2 * i + 2 },
        ],
        palmMute: i === 1,
        trust: 'heard' as const,
      })),
    },
  ],
  sections: [
    { ...PLAIN_SECTION, id: '1', name: 'Verse', riffId: 'a', startBar: 0, passes: 2, transpose: 0 },
    { ...PLAIN_SECTION, id: '2', name: 'Chorus', riffId: 'a', startBar: 2, passes: 2, transpose: 3 },
  ],
};

interface At {
  readonly timeS: number;
  readonly event: MidiEvent;
}

/** Every event in seconds, by the file's own tempo map alone. */
function inSeconds({ header, tracks }: MidiData): At[][] {
  const absolute = tracks.map((track) => {
    let ticks = 0;
    return track.map((event) => ({ ticks: (ticks += event.deltaTime), event }));
  });
  const tempi = absolute[0].flatMap(({ ticks, event }) =>
    event.type === 'setTempo' ? [{ ticks, us: event.microsecondsPerBeat }] : [],
  );
  const secondsAt = (ticks: number): number => {
    let [timeS, from, us] = [0, 0, 500_000];
    for (const tempo of tempi) {
      if (tempo.ticks > ticks) break;
      timeS += ((tempo.ticks - from) / header.ticksPerBeat!) * (us / 1e6);
      [from, us] = [tempo.ticks, tempo.us];
    }
    return timeS + ((ticks - from) / header.ticksPerBeat!) * (us / 1e6);
  };
  return absolute.map((track) => track.map(({ ticks, event }) => ({ timeS: secondsAt(ticks), event })));
}

const read = (song: SongDocument): At[][] => inSeconds(parseMidi(writeMidiFile(song)));
const notes = (track: readonly At[]) =>
  track.flatMap(({ timeS, event }) =>
    event.type === 'noteOn' ? [{ timeS, midi: event.noteNumber, channel: event.channel }] : [],
  );

describe('a song as a MIDI file, read back by midi-file', () => {
  it('sounds every note where the tab sounds it, over the recording’s own drift', () => {
    const [, guitar] = read(SONG);
    const played = performDocument(SONG).flatMap((s) =>
      s.notes.map(({ midi }) => ({ timeS: s.timeS, midi })),
    );
    const found = notes(guitar);
    expect(found).toHaveLength(played.length);
    const inOrder = (a: { timeS: number; midi: number }, b: { timeS: number; midi: number }): number =>
      Math.round(1000 * (a.timeS - b.timeS)) || a.midi - b.midi;
    [...found].sort(inOrder).forEach(({ timeS, midi }, i) => {
      const wanted = [...played].sort(inOrder)[i];
      expect(midi).toBe(wanted.midi);
      expect(Math.abs(timeS - wanted.timeS)).toBeLessThan(0.001);
    });
  });

  it('has palm mutes on an instrument of their own, and ends every note', () => {
    const [, guitar] = read(SONG);
    expect(new Set(notes(guitar).map((n) => n.channel))).toEqual(new Set([0, 1]));
    expect(
      notes(guitar)
        .filter((n) => n.channel === 1)
        .map((n) => n.midi)
        .slice(0, 2),
    ).toEqual([42, 49]);
    const ends = guitar.filter(({ event }) => event.type === 'noteOff');
    expect(ends).toHaveLength(notes(guitar).length);
  });

  it('names the sections where they begin, and says the meter', () => {
    const [conductor] = read(SONG);
    const markers = conductor.flatMap(({ timeS, event }) =>
      event.type === 'marker' ? [[event.text, Number(timeS.toFixed(3))]] : [],
    );
    expect(markers).toEqual([
      ['Verse', 0.7],
      ['Chorus', 4.7],
    ]);
    expect(conductor.filter(({ event }) => event.type === 'timeSignature')).toHaveLength(1);
  });

  it('bends by the wheel, and lets go of it for the next strum', () => {
    const bent = rewriteStrums(SONG, 'a', new Map([['s0', { marks: { ...NO_MARKS, bendCents: 200 } }]]));
    const [, guitar] = read(bent);
    const wheel = guitar.flatMap(({ event }) => (event.type === 'pitchBend' ? [event.value] : []));
    // Two semitones of the twelve that the wheel reaches.
    expect(Math.max(...wheel)).toBe(Math.round((8191 * 2) / 12));
    expect(wheel.at(-1)).toBe(0);
  });

  it('has a track for each guitar, and is a whole file without beats and without riffs', () => {
    const two = { ...SONG, guitar2: STANDARD_TUNING };
    expect(read(two)).toHaveLength(3);
    const empty = parseMidi(writeMidiFile(PLAIN_SONG));
    expect(empty.header.format).toBe(1);
    expect(empty.tracks.flat().filter((e) => e.type === 'noteOn')).toEqual([]);
  });
});
