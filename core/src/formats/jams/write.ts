/**
 * What the song says of its recording as JAMS (Humphrey et al., "JAMS: A JSON Annotated Music Specification", ISMIR 2014; namespaces as its
 * version 0.3 names them): beats, chords, sections, tempo, key and notes, on the clock of the recording.
 */
import { overallTempo, performDocument, sectionTimesS, strumsInPasses, type SongDocument } from '../../riff';
import { identifyChord, spellPitchClass, type ChordQuality, type Key } from '../../theory';

const JAMS_VERSION = '0.3.4';

interface Observation {
  /** Seconds. */
  readonly time: number;
  readonly duration: number;
  readonly value: unknown;
  readonly confidence: number | null;
}

/** Shorthands of Harte's chord syntax (Harte et al., ISMIR 2005); a flat fifth is told by its intervals. */
const SHORTHANDS: Readonly<Record<Exclude<ChordQuality, 'other'>, string>> = {
  '5': '5',
  b5: '(1,b5)',
  oct: '1',
  sus2: 'sus2',
  sus4: 'sus4',
  maj: 'maj',
  min: 'min',
  single: '1',
};
/** Degrees over the root by semitones. */
const DEGREES = ['1', 'b2', '2', 'b3', '3', '4', 'b5', '5', 'b6', '6', 'b7', '7'];

const rounded = (seconds: number): number => Math.round(1e6 * seconds) / 1e6;

function chordLabel(midi: readonly number[], key: Key | null): string {
  const chord = identifyChord(midi);
  if (!chord) return 'N';
  const { rootPc, quality, bassPc } = chord;
  const root = spellPitchClass(rootPc, key);
  const degreeOf = (pc: number): string => DEGREES[(pc - rootPc + 12) % 12];
  const own =
    quality === 'other'
      ? `(${[...new Set(midi.map((m) => degreeOf(m % 12)))].join(',')})`
      : SHORTHANDS[quality];
  return `${root}:${own}${bassPc === rootPc ? '' : `/${degreeOf(bassPc)}`}`;
}

function beatsOf({ grid }: SongDocument): Observation[] {
  const { beatsS, bars } = grid;
  let bar = -1;
  return beatsS.map((time, beat) => {
    while (bar + 1 < bars.length && bars[bar + 1].beat <= beat) bar++;
    const at = bars[bar] && beat < bars[bar].beat + bars[bar].beats ? beat - bars[bar].beat + 1 : null;
    return { time: rounded(time), duration: 0, value: at, confidence: null };
  });
}

/** Every strum of guitar 1 until the next one; equal ones in a row are one chord. */
function chordsOf(document: SongDocument): Observation[] {
  const chords: { time: number; duration: number; value: string; confidence: null }[] = [];
  for (const { timeS, endS, midi, strum } of strumsInPasses(document)) {
    if (strum.dead) continue;
    const value = chordLabel(midi, document.key);
    const last = chords.at(-1);
    if (last && last.time + last.duration > timeS) last.duration = rounded(timeS - last.time);
    if (last?.value === value && Math.abs(last.time + last.duration - timeS) < 1e-3) {
      last.duration = rounded(endS - last.time);
    } else {
      chords.push({ time: rounded(timeS), duration: rounded(endS - timeS), value, confidence: null });
    }
  }
  return chords;
}

export function writeJams(document: SongDocument): string {
  const { title, artist, key, grid, sections, guitar2 } = document;
  const ends = [...grid.beatsS, ...performDocument(document).map((s) => s.endS)];
  const duration = rounded(Math.max(0, ...ends));
  const whole = (value: unknown): Observation[] => [{ time: 0, duration, value, confidence: null }];
  const annotation = (namespace: string, data: readonly Observation[]): object => ({
    namespace,
    data,
    annotation_metadata: {
      curator: { name: '', email: '' },
      annotator: {},
      version: '',
      corpus: '',
      annotation_tools: 'Wild Needle',
      annotation_rules: '',
      validation: '',
      data_source: 'manual annotation',
    },
    sandbox: {},
    time: 0,
    duration,
  });
  const bpm = overallTempo(grid);
  const notes = performDocument(document).flatMap(({ timeS, notes: all }) =>
    all.map(({ midi, endS }): Observation => ({
      time: rounded(timeS),
      duration: rounded(Math.max(0, endS - timeS)),
      value: midi,
      confidence: null,
    })),
  );
  const parts = sections.flatMap((section): Observation[] => {
    const times = sectionTimesS(document, section);
    if (!times) return [];
    const { startS, endS } = times;
    return [
      { time: rounded(startS), duration: rounded(endS - startS), value: section.name, confidence: null },
    ];
  });
  return `${JSON.stringify(
    {
      annotations: [
        annotation('beat', beatsOf(document)),
        annotation('chord', chordsOf(document)),
        annotation('segment_open', parts),
        ...(bpm === null
          ? []
          : [
              annotation(
                'tempo',
                whole(bpm).map((o) => ({ ...o, confidence: 1 })),
              ),
            ]),
        ...(key ? [annotation('key_mode', whole(`${key.tonic}:${key.mode}`))] : []),
        annotation('note_midi', notes),
      ],
      file_metadata: {
        title,
        artist,
        release: '',
        duration,
        identifiers: {},
        jams_version: JAMS_VERSION,
      },
      sandbox: { guitars: guitar2 ? 2 : 1 },
    },
    null,
    1,
  )}\n`;
}
