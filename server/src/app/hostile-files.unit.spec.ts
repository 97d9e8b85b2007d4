/**
 * Odd and hostile files, as they come from web pages, other programs and bad intent: each gives a song that the schema takes, or one
 * sentence that says what is wrong, soon enough.
 */
import { strToU8, zipSync } from 'fflate';
import { writeMidi, type MidiData, type MidiEvent } from 'midi-file';
import { describe, expect, it } from 'vitest';
import { songDocumentSchema, upgradeDocument } from '@wild-needle/contract';
import { bringIn, decodeText, FORMATS, kindOf } from '@wild-needle/core/formats';
import { STANDARD_TUNING } from '@wild-needle/core/guitar';
import { PLAIN_SONG } from '@wild-needle/core/riff';

/** Longer, it hangs. */
const MOST_MS = 5000;

const text = (words: string): Uint8Array => new TextEncoder().encode(words);
const utf16 = (words: string): Uint8Array =>
  new Uint8Array([
    0xff,
    0xfe,
    ...Array.from(words, (c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8]).flat(),
  ]);
const latin1 = (words: string): Uint8Array => Uint8Array.from(words, (c) => c.charCodeAt(0));
const tab = (...lines: readonly string[]): Uint8Array => text(lines.join('\n'));
const SIX = ['e|--0--|', 'B|-----|', 'G|-----|', 'D|-----|', 'A|-----|', 'E|-----|'] as const;

/** A measure of MusicXML with this inside. */
const note = (inside = '<pitch><step>E</step><octave>3</octave></pitch>', duration = '4'): string =>
  `<note>${inside}<duration>${duration}</duration></note>`;
const score = (measures: string, head = ''): string =>
  `<?xml version="1.0"?>${head}<score-partwise><part-list><score-part id="P1"><part-name>G</part-name></score-part></part-list><part id="P1">${measures}</part></score-partwise>`;
const attributes = (inside: string): string => `<attributes><divisions>1</divisions>${inside}</attributes>`;
const measure = (inside: string): string => `<measure number="1">${inside}</measure>`;

function midi(events: readonly object[], header: Partial<MidiData['header']> = {}): Uint8Array {
  const track = [...events, { deltaTime: 0, type: 'endOfTrack', meta: true }] as MidiEvent[];
  return Uint8Array.from(
    writeMidi({ header: { format: 1, numTracks: 1, ticksPerBeat: 480, ...header }, tracks: [track] }),
  );
}
const struck = (noteNumber: number, deltaTime = 0, channel = 0): object[] => [
  { deltaTime, type: 'noteOn', channel, noteNumber, velocity: 90 },
  { deltaTime: 240, type: 'noteOff', channel, noteNumber, velocity: 0 },
];
/** One chunk of a Standard MIDI file, by hand. */
const chunk = (name: string, body: readonly number[]): number[] => [
  ...name.split('').map((c) => c.charCodeAt(0)),
  ...[24, 16, 8, 0].map((by) => (body.length >> by) & 255),
  ...body,
];

/** What is expected: a sentence that matches, or a song. */
const SONG = 'song';
const ZOO: readonly (readonly [name: string, file: () => Uint8Array, outcome: RegExp | typeof SONG])[] = [
  // Nothing, and not what it seems.
  ['an empty file', () => new Uint8Array(), /empty/],
  ['a single byte', () => text('x'), /no tab in it/],
  ['spaces and line ends', () => text(' \r\n\t\n '), /no tab in it/],
  [
    'a picture',
    () => new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 13]),
    /neither a text nor a MIDI file/,
  ],
  ['a recording', () => new Uint8Array([...text('RIFF'), 0, 0, 0, 0, ...text('WAVE')]), /neither a text/],
  ['a letter', () => text('Dear all,\nplease find the chords below.\nE A D\n'), /no tab in it/],
  ['ten megabytes of dashes', () => text(`${'-'.repeat(1_000_000)}\n`.repeat(10)), /longer than any tab/],
  ['more than any file', () => new Uint8Array(13_000_000).fill(45), /larger than 12 MB/],
  ['a million short lines', () => text('a\n'.repeat(1_000_000)), /no tab in it/],
  // Text tab.
  ['one string', () => text('e|--0--|'), /no tab in it/],
  ['two strings', () => text('e|--0--|\nB|-----|'), /no tab in it/],
  ['four strings', () => tab('G|--0--|', 'D|-----|', 'A|-----|', 'E|-----|'), SONG],
  ['seven strings', () => tab(...SIX, 'B|--0--|'), SONG],
  ['eight strings', () => tab(...SIX, 'B|--0--|', 'F#|-----|'), SONG],
  ['twelve strings', () => tab(...SIX.flatMap((l) => [l, l])), SONG],
  ['thirteen strings', () => tab(...SIX, ...SIX, SIX[0]), SONG],
  ['empty strings', () => tab(...SIX.map((l) => l.replace('0', '-'))), /no fret is written/],
  ['frets beyond the neck', () => tab('e|--99--77--|', ...SIX.slice(1)), SONG],
  ['a fret of twelve digits', () => tab('e|--123456789012--|', ...SIX.slice(1)), SONG],
  ['no bar lines', () => tab(...SIX.map((l) => l.replaceAll('|', '-'))), SONG],
  ['bar lines that disagree', () => tab('e|--0--|--|', 'B|-|---|--|', 'G|--|--|--|', 'D|-----|'), SONG],
  [
    'strings of any length',
    () => tab('e|--0--------|', 'B|--', 'G|------|', 'D|---|', 'A|--|', 'E|------0--|'),
    SONG,
  ],
  ['spaces that do not break', () => tab(...SIX.map((l) => l.replaceAll('-', '\u00a0-'))), SONG],
  ['dashes of printers', () => tab(...SIX.map((l) => l.replaceAll('-', '–'))), SONG],
  ['an empty line behind each', () => text(SIX.join('\n\n')), SONG],
  ['lines ended as on old machines', () => text(SIX.join('\r\n')), SONG],
  ['tabulators', () => tab(...SIX.map((l) => `\t${l}`)), SONG],
  ['UTF-16', () => utf16(SIX.join('\n')), SONG],
  ['an old encoding', () => latin1(`Für Anfänger\n\n${SIX.join('\n')}`), SONG],
  ['a byte order mark', () => new Uint8Array([0xef, 0xbb, 0xbf, ...tab(...SIX)]), SONG],
  ['nothing but signs', () => tab(...SIX.map((l) => l.replace('--0--', '~h/b)('))), /no tab in it|no fret/],
  ['a tuning of words', () => tab('Tuning: very low indeed', '', ...SIX), SONG],
  ['a tuning of other strings', () => tab('Tuning: D A D', '', ...SIX), SONG],
  ['a meter of nothing', () => tab('Tempo: 0 bpm, 0/4', '', ...SIX), SONG],
  ['a tempo of millions', () => tab('Tempo: 99999999 bpm, 4/4', '', ...SIX), SONG],
  ['played ten thousand times', () => tab(...SIX.map((l) => `${l} x999`)), SONG],
  [
    'an order of riffs that are not there',
    () => tab('Order of play', '  0:00.0  Verse: Z x4', '', ...SIX),
    SONG,
  ],
  ['a heading as long as a book', () => tab('Riff '.repeat(2000), ...SIX), SONG],
  [
    'a bar of ten thousand frets',
    () => tab(...SIX.map((l) => `${l.slice(0, 2)}${'0-'.repeat(10_000)}|`)),
    SONG,
  ],
  ['a bracket for every string', () => tab(...SIX.map(() => 'e|((((((0))))))|')), SONG],
  // XML.
  ['broken XML', () => text('<score-partwise><part></score-partwise>'), /line 1, column \d+: /],
  ['half of a score', () => text(score(measure(note())).slice(0, 120)), /line 1, column \d+: /],
  ['a web page', () => text('<html><body>tab</body></html>'), /no score: its first element is <html>/],
  [
    'a bomb of entities',
    () =>
      text(
        score(
          measure('<note>&d;</note>'),
          `<!DOCTYPE x [<!ENTITY a "${'a'.repeat(9999)}"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;"><!ENTITY c "&b;&b;&b;&b;&b;&b;&b;&b;"><!ENTITY d "&c;&c;&c;&c;&c;&c;&c;&c;">]>`,
        ),
      ),
    /line 1, column \d+: undefined entity/,
  ],
  [
    'a file of the machine as an entity',
    () => text(score(measure('&p;'), '<!DOCTYPE x [<!ENTITY p SYSTEM "file:///etc/passwd">]>')),
    /undefined entity/,
  ],
  ['elements in each other without end', () => text('<a>'.repeat(200_000)), /too deep for a score/],
  ['a score by time', () => text('<score-timewise></score-timewise>'), /save it part by part/],
  ['a score of rests', () => text(score(measure(note('<rest/>')))), /no notes in this score/],
  ['no measures', () => text(score('')), /no notes in this score/],
  [
    'divisions of nothing',
    () => text(score(measure(`<attributes><divisions>0</divisions></attributes>${note()}`))),
    /measure 1: divisions/,
  ],
  [
    'a negative duration',
    () => text(score(measure(attributes('') + note(undefined, '-4')))),
    /measure 1: a duration/,
  ],
  [
    'a duration of words',
    () => text(score(measure(attributes('') + note(undefined, 'long')))),
    /no notes in this score/,
  ],
  [
    'a meter of 99/7',
    () => text(score(measure(attributes('<time><beats>99</beats><beat-type>7</beat-type></time>') + note()))),
    /meter of 99\/7/,
  ],
  [
    'a pitch over all strings',
    () => text(score(measure(attributes('') + note('<pitch><step>C</step><octave>9</octave></pitch>')))),
    SONG,
  ],
  [
    'a string that the guitar has not',
    () =>
      text(
        score(
          measure(
            attributes('<clef><sign>TAB</sign></clef>') +
              note(
                '<pitch><step>E</step><octave>3</octave></pitch><notations><technical><string>19</string><fret>2</fret></technical></notations>',
              ),
          ),
        ),
      ),
    SONG,
  ],
  [
    'a repeat of a million times',
    () =>
      text(
        score(
          measure(
            `${attributes('')}${note()}<barline><repeat direction="backward" times="1000000"/></barline>`,
          ),
        ),
      ),
    SONG,
  ],
  ['a packed score', () => zipSync({ 'a.xml': strToU8(score(measure(attributes('') + note()))) }), SONG],
  ['a packed nothing', () => zipSync({ 'a.txt': strToU8('a') }), /no score is in it/],
  [
    'half of a packed score',
    () => zipSync({ 'a.xml': strToU8(score(measure(note()))) }).slice(0, 60),
    /damaged/,
  ],
  [
    'a bomb of a packed score',
    () => zipSync({ 'a.xml': new Uint8Array(60_000_000) }),
    /larger than any score/,
  ],
  [
    'a container that points outside',
    () =>
      zipSync({
        'META-INF/container.xml': strToU8(
          '<container><rootfiles><rootfile full-path="../../etc/passwd"/></rootfiles></container>',
        ),
      }),
    /no score is in it/,
  ],
  // MIDI.
  ['half of a MIDI file', () => midi(struck(40)).slice(0, 30), /no MIDI file|no notes/],
  ['a MIDI file of its name only', () => text('MThd'), /no MIDI file/],
  ['MIDI without tempo or meter', () => midi(struck(45)), SONG],
  ['MIDI of drums', () => midi(struck(40, 0, 9)), /only drums/],
  ['MIDI without notes', () => midi([]), /no notes/],
  [
    'MIDI in frames of film',
    () => midi(struck(40), { ticksPerBeat: undefined, framesPerSecond: 25, ticksPerFrame: 40 }),
    /frames of film/,
  ],
  [
    'MIDI with a running status',
    () =>
      Uint8Array.from([
        ...chunk('MThd', [0, 0, 0, 1, 0, 96]),
        ...chunk('MTrk', [0, 0x90, 45, 90, 48, 45, 0, 0, 47, 90, 48, 47, 0, 0, 0xff, 0x2f, 0]),
      ]),
    SONG,
  ],
  [
    'MIDI with notes that never end',
    () => midi([{ deltaTime: 0, type: 'noteOn', channel: 0, noteNumber: 45, velocity: 90 }]),
    SONG,
  ],
  ['MIDI of half an hour of silence and a note', () => midi(struck(45, 1_700_000)), SONG],
  ['MIDI of an hour and more', () => midi(struck(45, 5_000_000)), /bars of one riff/],
  ['MIDI longer than any song', () => midi(struck(45, 250_000_000)), /longer than \d+ bars|seconds/],
  [
    'MIDI of every note at once',
    () =>
      midi(
        Array.from({ length: 128 }, (_, n) => struck(n)[0]).concat(
          Array.from({ length: 128 }, (_, n) => struck(n)[1]),
        ),
      ),
    SONG,
  ],
  // Song files and label tracks.
  ['half of a song file', () => text('{"schema":"wild-needle/song@2","title"'), /JSON/],
  ['a song file of another program', () => text('{"a":1}'), /schema|song/i],
  [
    'a song file of tomorrow',
    () => text(JSON.stringify({ ...PLAIN_SONG, schema: 'wild-needle/song@99' })),
    /schema/i,
  ],
  [
    'a song file with a tuning of 99 strings',
    () =>
      text(
        JSON.stringify({
          ...PLAIN_SONG,
          title: 'x',
          tuning: { name: 'x', stringsMidi: Array(99).fill(40), capo: 0 },
        }),
      ),
    /./,
  ],
  ['labels that end before they begin', () => text('9.0\t2.0\tVerse\n'), /line 1 of a label track/],
  ['labels without words', () => text('0.0\t2.0\n2.0\t4.0\n'), /no label lies over a bar/],
];

/** As the page brings a file in. */
async function brought(bytes: Uint8Array): Promise<unknown> {
  const kind = kindOf(bytes);
  if (kind === 'song-file') return upgradeDocument(JSON.parse(decodeText(bytes)));
  if (kind === 'label-track') return FORMATS.find((f) => f.id === kind)!.read!(PLAIN_SONG, decodeText(bytes));
  return (await bringIn(kind, bytes, { tuning: STANDARD_TUNING })).document;
}

describe(`${ZOO.length} odd and hostile files`, () => {
  it.each(ZOO)('%s', async (_, file, outcome) => {
    const start = performance.now();
    const result = await brought(file()).catch((error: unknown) => error);
    // Not a speed that is measured: what hangs is found out.
    expect(performance.now() - start).toBeLessThan(MOST_MS);
    if (outcome === SONG) expect(songDocumentSchema.safeParse(result).error).toBeUndefined();
    else {
      expect(result).toBeInstanceOf(Error);
      expect((result as Error).message).toMatch(outcome);
      // For a person: no trace, no dump of what was in the file.
      expect((result as Error).message.split('\n')[0].length).toBeLessThan(400);
    }
  });
});
