/**
 * Three short songs with exact truth for the gate in CI: played by fluidsynth with the soundfont of Debian's package
 * csound-soundfont, which no training song uses, and amplified by ffmpeg's filters. Invented for this purpose.
 */
import { join } from 'node:path';
import {
  CLEAN_GUITAR,
  DRUMS,
  FINGER_BASS,
  midiOf,
  MUTED_GUITAR,
  playMidi,
  runTool,
  type Note,
} from './play-midi';

const SOUNDFONT = '/usr/share/sounds/sf2/sf_GMbank.sf2';
const START_S = 0.6;

/** Forms as semitones over the lowest note. */
const SHAPES = {
  p2: [0, 7],
  p3: [0, 7, 12],
  n: [0],
  inv: [0, 5],
  oct: [0, 12],
  sus4: [0, 7, 12, 17],
} as const;

/** Eighth of the bar, lowest note, form, length in eighths, `pm` for palm-muted. */
type Written = readonly [number, number, keyof typeof SHAPES, number, 'pm'?];

interface OwnSong {
  readonly name: string;
  readonly bpm: number;
  readonly beats: number;
  readonly offsetCents: number;
  readonly isDoubled: boolean;
  readonly hasBand: boolean;
  readonly driveDb: number;
  readonly riffs: Readonly<Record<string, readonly (readonly Written[])[]>>;
  /** Riff letters, each played as often as said. */
  readonly form: readonly (readonly [string, number])[];
}

const SONGS: readonly OwnSong[] = [
  {
    name: 'Copper Ladder',
    bpm: 116,
    beats: 4,
    offsetCents: 0,
    isDoubled: true,
    hasBand: true,
    driveDb: 22,
    riffs: {
      A: [
        [
          [0, 40, 'p3', 3],
          [3, 43, 'p3', 1],
          [4, 45, 'p3', 4],
        ],
        [
          [0, 40, 'p3', 2],
          [2, 40, 'p3', 1],
          [3, 47, 'p3', 1],
          [4, 45, 'p3', 2],
          [6, 43, 'p3', 2],
        ],
      ],
      B: [
        [
          [0, 48, 'p2', 4],
          [4, 50, 'p2', 4],
        ],
        [
          [0, 45, 'p2', 6],
          [6, 43, 'p2', 2],
        ],
      ],
    },
    form: [
      ['A', 3],
      ['B', 2],
      ['A', 2],
    ],
  },
  {
    name: 'Borrowed Thunder',
    bpm: 148,
    beats: 4,
    offsetCents: -22,
    isDoubled: false,
    hasBand: true,
    driveDb: 28,
    riffs: {
      A: [
        [
          [0, 38, 'p2', 1, 'pm'],
          [1, 38, 'p2', 1, 'pm'],
          [2, 38, 'p2', 2],
          [4, 41, 'p2', 2],
          [6, 43, 'p2', 2],
        ],
        [
          [0, 38, 'p2', 1, 'pm'],
          [1, 38, 'p2', 1, 'pm'],
          [2, 46, 'p2', 2],
          [4, 45, 'p2', 4],
        ],
      ],
      B: [
        [
          [0, 43, 'inv', 4],
          [4, 45, 'inv', 4],
        ],
        [
          [0, 50, 'oct', 4],
          [4, 48, 'n', 2],
          [6, 45, 'n', 2],
        ],
      ],
    },
    form: [
      ['A', 4],
      ['B', 2],
      ['A', 2],
    ],
  },
  {
    name: 'Slow Lighthouse',
    bpm: 92,
    beats: 3,
    offsetCents: 14,
    isDoubled: true,
    hasBand: false,
    driveDb: 16,
    riffs: {
      A: [
        [
          [0, 45, 'p3', 4],
          [4, 47, 'p3', 2],
        ],
        [[0, 48, 'p3', 6]],
      ],
      B: [
        [
          [0, 52, 'sus4', 2],
          [2, 52, 'p3', 2],
          [4, 50, 'p3', 2],
        ],
        [
          [0, 43, 'p3', 3],
          [3, 43, 'p3', 3],
        ],
      ],
    },
    form: [
      ['A', 3],
      ['B', 2],
      ['A', 1],
    ],
  },
];

export interface TrueStrum {
  readonly timeS: number;
  readonly endS: number;
  readonly midi: readonly number[];
  readonly palmMuted: boolean;
}

export interface RenderedSong {
  readonly name: string;
  readonly path: string;
  readonly bpm: number;
  readonly offsetCents: number;
  readonly strums: readonly TrueStrum[];
  readonly downbeatsS: readonly number[];
  readonly sections: readonly { readonly startS: number; readonly endS: number; readonly label: string }[];
}

function layOut(song: OwnSong): Pick<RenderedSong, 'strums' | 'downbeatsS' | 'sections'> {
  const eighthS = 30 / song.bpm;
  const strums: TrueStrum[] = [];
  const downbeatsS: number[] = [];
  let bar = 0;
  const barS = (index: number): number => START_S + index * song.beats * 2 * eighthS;
  const sections = song.form.map(([label, passes]) => {
    const startS = barS(bar);
    for (let pass = 0; pass < passes; pass++) {
      for (const written of song.riffs[label]) {
        downbeatsS.push(barS(bar));
        for (const [at, lowest, form, length, mute] of written) {
          const timeS = barS(bar) + at * eighthS;
          const midi = SHAPES[form].map((up) => lowest + up);
          strums.push({ timeS, endS: timeS + length * eighthS - 0.02, midi, palmMuted: mute === 'pm' });
        }
        bar++;
      }
    }
    return { startS, endS: barS(bar), label };
  });
  return { strums, downbeatsS, sections };
}

function guitarNotes(strums: readonly TrueStrum[], lateS: number): Note[] {
  return strums.flatMap(({ timeS, endS, midi, palmMuted }) =>
    midi.map((key, i) => ({
      channel: palmMuted ? 1 : 0,
      key,
      velocity: 96,
      fromS: timeS + lateS + 0.003 * i,
      toS: palmMuted ? Math.min(endS, timeS + 0.12) : endS + lateS,
    })),
  );
}

function bandNotes({ beats, bpm }: OwnSong, { strums, downbeatsS }: ReturnType<typeof layOut>): Note[] {
  const beatS = 60 / bpm;
  const hit = (key: number, velocity: number, fromS: number): Note => ({
    channel: DRUMS,
    key,
    velocity,
    fromS,
    toS: fromS + 0.1,
  });
  const drums = downbeatsS.flatMap((one) =>
    Array.from({ length: 2 * beats }, (_, e) => {
      const at = one + (e * beatS) / 2;
      const notes = [hit(42, 70, at)];
      if (e === 0 || e === 5) notes.push(hit(36, 110, at));
      if (e % 4 === 2) notes.push(hit(38, 105, at));
      return notes;
    }).flat(),
  );
  const bass = strums.map((s) => ({
    channel: 2,
    key: s.midi[0] - 12,
    velocity: 90,
    fromS: s.timeS,
    toS: s.endS,
  }));
  return [...drums, ...bass];
}

function render(folder: string, song: OwnSong): RenderedSong {
  const laid = layOut(song);
  const programs = [CLEAN_GUITAR, MUTED_GUITAR, FINGER_BASS];
  const takes = (song.isDoubled ? [0, 0.009] : [0]).map((lateS, i) =>
    playMidi(
      SOUNDFONT,
      folder,
      `${song.name} ${i}`,
      midiOf(guitarNotes(laid.strums, lateS), programs, song.offsetCents),
    ),
  );
  const band = song.hasBand
    ? [
        playMidi(
          SOUNDFONT,
          folder,
          `${song.name} band`,
          midiOf(bandNotes(song, laid), programs, song.offsetCents),
        ),
      ]
    : [];
  // Tighten, drive, clip, loudspeaker.
  const amplifier =
    `pan=mono|c0=0.5*c0+0.5*c1,highpass=f=95,volume=${song.driveDb}dB,` +
    'asoftclip=type=tanh:oversample=4,lowpass=f=5200,volume=-10dB';
  const left = 'pan=stereo|c0=c0|c1=0*c0';
  const right = 'pan=stereo|c0=0*c0|c1=c0';
  const places = song.isDoubled ? [left, right] : ['pan=stereo|c0=0.7*c0|c1=0.7*c0'];
  const inputs = [...takes, ...band];
  const chains = takes.map((_, i) => `[${i}:a]${amplifier},${places[i]}[g${i}]`);
  if (band.length > 0) chains.push(`[${takes.length}:a]volume=-3dB[b]`);
  const names = [...takes.map((_, i) => `[g${i}]`), ...(band.length > 0 ? ['[b]'] : [])].join('');
  const graph = `${chains.join(';')};${names}amix=inputs=${inputs.length}:normalize=0:duration=longest,volume=-4dB`;
  const path = join(folder, `${song.name}.wav`);
  runTool('ffmpeg', [
    '-v',
    'error',
    '-y',
    ...inputs.flatMap((i) => ['-i', i]),
    '-filter_complex',
    graph,
    path,
  ]);
  return { name: song.name, path, bpm: song.bpm, offsetCents: song.offsetCents, ...laid };
}

/** Renders the songs into `folder`. */
export function renderOwnSongs(folder: string): RenderedSong[] {
  return SONGS.map((song) => render(folder, song));
}
