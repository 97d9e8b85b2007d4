/** The demo songs: invented riffs by invented bands. Each is a document that the band of `core/synth` plays. */
import { TUNINGS } from '@wild-needle/core/guitar';
import {
  PLAIN_SONG,
  keepVariation,
  PLAIN_SECTION,
  riffTicks,
  type Bar,
  type Riff,
  type SongDocument,
} from '@wild-needle/core/riff';
import type { BandOptions } from '@wild-needle/core/synth';
import { riffOf } from './notation';

export interface DemoSong {
  readonly fileName: string;
  /** As it is written. */
  readonly document: SongDocument;
  /** As the band plays it: with what the transcription does not know yet. */
  readonly played: SongDocument;
  readonly band: Omit<BandOptions, 'sampleRate'>;
  /** Comes with its transcription; the others are left for the user to work out. */
  readonly transcribed: boolean;
}

interface SongPlan {
  readonly title: string;
  readonly artist: string;
  readonly tuning: string;
  readonly key: SongDocument['key'];
  readonly bpm: number;
  readonly offsetCents: number;
  readonly riffs: readonly Riff[];
  /** Section name, riff letter, passes, semitones up. */
  readonly form: readonly (readonly [name: string, letter: string, passes: number, transpose?: number])[];
}

/** One pass that ends otherwise than the riff, in its last bars. */
interface DemoEnding {
  readonly section: string;
  readonly pass: number;
  readonly bars: readonly string[];
}

function withEnding(document: SongDocument, { section: name, pass, bars }: DemoEnding): SongDocument {
  const section = document.sections.find((s) => s.name === name);
  const riff = document.riffs.find((r) => r.id === section?.riffId);
  if (!section || !riff) throw new Error(`no section is called ${name}`);
  const toTicks = riffTicks(riff);
  const ending = riffOf(`${riff.letter}-ending`, 'Ending', bars);
  const fromTicks = toTicks - riffTicks(ending);
  return keepVariation(document, section.id, pass - 1, {
    ...{ id: `${riff.id}-ending`, name: 'Ending 2', fromTicks, toTicks, guitar2: [] },
    strums: ending.strums.map((s) => ({ ...s, startTicks: s.startTicks + fromTicks })),
  });
}

/** Silence before the first bar, as on a record. */
const LEAD_IN_S = 0.6;

function documentOf({ title, artist, tuning, key, bpm, offsetCents, riffs, form }: SongPlan): SongDocument {
  const found = TUNINGS.find((t) => t.name === tuning);
  if (!found) throw new Error(`no tuning is called ${tuning}`);
  let startBar = 0;
  const sections = form.map(([name, letter, passes, transpose = 0], i) => {
    const riff = riffs.find((r) => r.letter === letter);
    if (!riff) throw new Error(`no riff ${letter} in ${title}`);
    const section = {
      ...PLAIN_SECTION,
      id: `section-${i + 1}`,
      name,
      riffId: riff.id,
      startBar,
      passes,
      transpose,
    };
    startBar += riff.bars.length * passes;
    return section;
  });
  const beats = startBar * 4;
  return {
    ...PLAIN_SONG,
    title,
    artist,
    tuning: { name: found.name, stringsMidi: found.strings, capo: 0 },
    key,
    referenceOffsetCents: offsetCents,
    grid: {
      beatsS: Array.from({ length: beats + 1 }, (_, i) => LEAD_IN_S + (i * 60) / bpm),
      bars: Array.from({ length: startBar }, (_, i): Bar => ({ beat: i * 4, beats: 4, unit: 4 })),
    },
    riffs,
    sections,
  };
}

const SONGS: readonly (Omit<DemoSong, 'played'> & { readonly ending?: DemoEnding })[] = [
  {
    fileName: 'salt-on-the-wire.flac',
    transcribed: true,
    // The fourth time round the turn is left out.
    ending: { section: 'Verse 1', pass: 4, bars: ['5.5.5:12 -:4'] },
    band: { seed: 11, drive: 14, drums: true, bass: true, guitars: 2 },
    document: documentOf({
      title: 'Salt on the Wire',
      artist: 'Copper Lantern',
      tuning: 'drop-c#',
      key: { tonic: 'C#', mode: 'minor' },
      bpm: 132,
      offsetCents: 38,
      riffs: [
        riffOf('A', 'Intro riff', ['0.0.0:8 3.3.3:4 5.5.5:4', '0.0.0:8 8.8.8:4 7.7.7:2 D:1 D:1']),
        riffOf('B', 'Verse riff', [
          '0.0.0:4 0.0:2m 0.0:2m 3.3.3:4 0.0:2m 3.3.3:2',
          '5.5.5:6s D:2 0.0:2m 2.2.2:2 x.3:2 x.5:2h',
        ]),
        riffOf('C', 'Chorus riff', ['3.3.3:8 5.5.5:8', '7.7.7:8 8.8.8:4 7.7.7:4']),
      ],
      form: [
        ['Intro', 'A', 2],
        ['Verse 1', 'B', 4],
        ['Verse 1, moved up', 'B', 2, 2],
        ['Chorus 1', 'C', 2],
        ['Verse 2', 'B', 4],
        ['Chorus 2', 'C', 3],
      ],
    }),
  },
  {
    fileName: 'nine-volt-harbour.flac',
    transcribed: false,
    band: { seed: 12, drive: 8, drums: true, bass: true, guitars: 2 },
    document: documentOf({
      title: 'Nine Volt Harbour',
      artist: 'Tin Parliament',
      tuning: 'standard',
      key: { tonic: 'E', mode: 'minor' },
      bpm: 116,
      offsetCents: 0,
      riffs: [
        riffOf('A', 'Main riff', [
          '0.2.2:4 0.2:2m 0.2:2m 3.5.5:4 0.2:2m 0.2:2m',
          '0.2.2:4 0.2:2m 0.2:2m 5.7.7:4 3.5.5:4',
        ]),
        riffOf('B', 'Chorus riff', ['x.3.5.5:8 x.5.7.7:8', '3.5.5:8 x.2.4.4:8']),
      ],
      form: [
        ['Intro', 'A', 2],
        ['Verse', 'A', 4],
        ['Chorus', 'B', 3],
        ['Verse', 'A', 3],
      ],
    }),
  },
  {
    fileName: 'gravel-choir.flac',
    transcribed: false,
    band: { seed: 13, drive: 4, drums: false, bass: false, guitars: 1 },
    document: documentOf({
      title: 'Gravel Choir',
      artist: 'Ostrich Committee',
      tuning: 'drop-d',
      key: { tonic: 'D', mode: 'minor' },
      bpm: 96,
      offsetCents: -22,
      riffs: [
        riffOf('A', 'Riff', ['0.0.0:6 0.0:2m 5.5.5:4 3.3.3:4', '0.0.0:6 D:2 7.7.7:2 5.5.5:2 3.3.3:4']),
        riffOf('B', 'Turn', ['8.8.8:8 7.7.7:4 5.5.5:4']),
      ],
      form: [
        ['Riff', 'A', 4],
        ['Turn', 'B', 2],
        ['Riff', 'A', 2],
      ],
    }),
  },
];

export const DEMO_SONGS: readonly DemoSong[] = SONGS.map(({ ending, ...song }) => ({
  ...song,
  played: ending ? withEnding(song.document, ending) : song.document,
}));
