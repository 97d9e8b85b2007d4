/**
 * MusicXML read by programs that others wrote: `verovio` (strings, frets, lengths), Debian's `musicxml2ly` and `lilypond` (pitches and
 * times with all repeats and endings played out), and two packages that know the schema of MusicXML 4.0.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { MusicXML } from '@stringsync/musicxml';
import fc from 'fast-check';
import { parseMidi } from 'midi-file';
import { parse, validate } from 'musicxml-io';
import createVerovioModule from 'verovio/wasm';
import { VerovioToolkit } from 'verovio/esm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { childrenOf, readXml, type Element } from '../../src/formats/musicxml/xml';
import { writeMusicXml } from '../../src/formats/musicxml/write';
import { madeUpSong } from '../../src/formats/test-songs';
import {
  NO_MARKS,
  playedPart,
  riffOfPass,
  riffTicks,
  strumNotes,
  type SongDocument,
  type Strum,
} from '../../src/riff';
import { TICKS_PER_QUARTER } from '../../src/units';

/** The same songs every time. */
const SONGS = fc.sample(madeUpSong, { seed: 22, numRuns: 40 });

/** Without what changes or hides pitches, and nothing held over by a tie of its own. */
function plain(song: SongDocument): SongDocument {
  const strums = (all: readonly Strum[]): Strum[] =>
    all.filter((s) => !s.dead && !s.rest).map((s) => ({ ...s, marks: NO_MARKS, palmMute: false }));
  return {
    ...song,
    guitar2: null,
    riffs: song.riffs
      .filter((riff) => song.sections.some((s) => s.riffId === riff.id))
      .map((riff) => ({
        ...riff,
        strums: strums(riff.strums),
        guitar2: [],
        variations: riff.variations.map((v) => ({ ...v, strums: strums(v.strums) })),
      })),
  };
}

/** Each strum that is played, from the first bar on. */
function played(song: SongDocument): { at: number; strum: Strum; by: number }[] {
  let start = 0;
  return song.sections.flatMap((section) => {
    const riff = song.riffs.find((r) => r.id === section.riffId)!;
    return Array.from({ length: section.passes }, (_, index) => {
      const at = start;
      start += riffTicks(riff);
      const pass = riffOfPass(riff, section, { ...playedPart(riff, section, index), index });
      return pass.strums.map((strum) => ({ at: at + strum.startTicks, strum, by: section.transpose }));
    }).flat();
  });
}

function elementsOf(xml: string): string[] {
  const names = (e: Element): string[] => [
    e.name,
    ...e.children.flatMap((c) => (typeof c === 'string' ? [] : names(c))),
  ];
  return names(readXml(xml));
}

describe('MusicXML in other hands', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wn-musicxml-'));
  afterAll(() => rmSync(folder, { recursive: true }));
  let verovio: VerovioToolkit;
  beforeAll(async () => {
    verovio = new VerovioToolkit(await createVerovioModule());
  });

  it('is valid for packages that know the schema: nothing is put right, nothing is complained of', () => {
    for (const song of SONGS.slice(0, 12)) {
      const xml = writeMusicXml(song);
      // What has no place in the schema this package replaces by something that has.
      expect(elementsOf(MusicXML.parse(xml).serialize())).toEqual(elementsOf(xml));
      expect(validate(parse(xml))).toMatchObject({ valid: true, errors: [] });
    }
  });

  it('has for verovio the strings, frets and times of the document', () => {
    const once = SONGS.slice(0, 12)
      .map(plain)
      .map((song) => ({
        ...song,
        sections: song.sections.map((s) => ({ ...s, passes: 1, answers: [] })),
      }));
    let strums = 0;
    for (const song of once) {
      expect(verovio.loadData(writeMusicXml(song))).toBeTruthy();
      const mei = readXml(verovio.getMEI());
      const found = new Map<number, string>();
      let measureStart = 0;
      const walk = (e: Element): void => {
        if (e.name === 'measure') {
          const staff = childrenOf(e, 'staff').find((s) => s.attributes['n'] === '2');
          let at = measureStart;
          for (const group of groupsOf(staff!)) {
            const places = childrenOf(group, 'note').map(
              (n) => `${n.attributes['tab.course']}:${n.attributes['tab.fret']}`,
            );
            if (places.length > 0) found.set(at, places.sort().join());
            at += Number(group.attributes['dur.ppq']);
          }
          measureStart += 4 * TICKS_PER_QUARTER;
        } else for (const c of e.children) if (typeof c === 'object') walk(c);
      };
      walk(mei);
      const wanted = new Map(
        played(song).map(({ at, strum, by }) => [
          at,
          strum.frets
            .map((f) => `${f.string}:${f.fret + by}`)
            .sort()
            .join(),
        ]),
      );
      strums += wanted.size;
      for (const [at, places] of wanted) expect([at, found.get(at)]).toEqual([at, places]);
      // Everything else is the same strum, tied on.
      for (const [at, places] of found) {
        const before = [...wanted.keys()].filter((t) => t <= at).sort((a, b) => b - a)[0];
        expect(wanted.get(before)).toBe(places);
      }
    }
    expect(strums).toBeGreaterThan(50);
  });

  it('sounds in lilypond as it is played, repeats and endings and all', () => {
    // musicxml2ly takes an ending for one pass, whatever its number says: the second of two is played otherwise.
    const hasEndings = (song: SongDocument): boolean => writeMusicXml(song).includes('<ending ');
    const twice = (song: SongDocument): SongDocument => ({
      ...song,
      sections: song.sections.map((s) => ({
        ...s,
        passes: 2,
        answers: [{ pass: 1, variationId: s.riffId!.replace('r', 'v') }],
      })),
    });
    const once = (song: SongDocument): SongDocument => ({
      ...song,
      sections: song.sections.map((s) => ({ ...s, answers: [] })),
    });
    const songs = SONGS.map(plain).filter((song) => played(song).length > 8);
    const chosen = [
      ...songs.map(twice).filter(hasEndings).slice(0, 2),
      ...songs
        .map(once)
        .filter((song) => writeMusicXml(song).includes('<repeat '))
        .slice(0, 1),
    ];
    expect(chosen).toHaveLength(3);
    for (const song of chosen) {
      const path = join(folder, 'song');
      const xml = writeMusicXml(song);
      writeFileSync(`${path}.musicxml`, xml);
      run('musicxml2ly', ['-m', '-o', `${path}.ly`, `${path}.musicxml`]);
      // Lengths as they are written, no chord names that sound, no engraving.
      const text = readFileSync(`${path}.ly`, 'utf8')
        .replaceAll('\\articulate', '')
        .replaceAll(/\\context ChordNames = .*$/gm, '')
        .replaceAll('\\layout {}', '');
      writeFileSync(`${path}.ly`, text);
      run('lilypond', ['-s', '-dno-print-pages', '-o', path, `${path}.ly`]);
      expect(notesOf(`${path}.midi`)).toEqual(
        [
          ...new Set(
            played(song).flatMap(({ at, strum, by }) =>
              strumNotes(strum, song.tuning).map((midi) => `${at} ${midi + by}`),
            ),
          ),
        ].sort(),
      );
    }
  });
});

/** Groups of tablature and silence, in order; those of triplets stand in elements of their own. */
function groupsOf(parent: Element): Element[] {
  return parent.children.flatMap((c) =>
    typeof c === 'string' ? [] : 'dur.ppq' in c.attributes ? [c] : groupsOf(c),
  );
}

function run(command: string, args: readonly string[]): void {
  const { error, stderr } = spawnSync(command, args, { encoding: 'utf8' });
  if (error) throw new Error(`${command}: ${stderr}`, { cause: error });
}

/** Every note of the file once, with its time in ticks of the document. */
function notesOf(path: string): string[] {
  const { header, tracks } = parseMidi(readFileSync(path));
  const notes = new Set<string>();
  for (const track of tracks) {
    let at = 0;
    for (const event of track) {
      at += event.deltaTime;
      if (event.type === 'noteOn' && event.velocity > 0) {
        notes.add(
          `${Math.round((at * TICKS_PER_QUARTER) / (header.ticksPerBeat ?? 384))} ${event.noteNumber}`,
        );
      }
    }
  }
  return [...notes].sort();
}
