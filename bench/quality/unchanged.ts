/**
 * `npm run bench:unchanged -- SONGS SAVED`: is the analysis the same as before a change, to the last strum? SONGS holds sound
 * files, in folders too. The first run writes what was heard, and the draft made from it, to SAVED; later runs compare with that
 * and end with exit code 1 where a song differs. Run it on the tree before the change first.
 */
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { isDeepStrictEqual } from 'node:util';
import { analyse, type Analysis } from '@wild-needle/core/analysis';
import { draftInto } from '@wild-needle/core/draft';
import { PLAIN_SONG, type SongDocument } from '@wild-needle/core/riff';
import { readSound } from './read-sound';

interface Saved {
  readonly analysis: Analysis;
  readonly draft: SongDocument;
}

/** What must stay, in parts that are told apart; each is a list, so that single members are counted. */
function partsOf({ analysis, draft }: Saved): Record<string, readonly unknown[]> {
  const { referenceOffsetCents, tempoBpm, meter, key, tuning, downbeatsS, beatsS, freeTime } = analysis;
  return {
    strums: analysis.strums,
    guitars: analysis.guitars.flatMap((g) => g.strums),
    grid: [tempoBpm, meter, ...beatsS, ...downbeatsS, ...freeTime],
    pitch: [referenceOffsetCents, key, tuning.stringsMidi, tuning.capo],
    sections: analysis.sections.map(
      ({
        startS,
        endS,
        label,
        transposeOf,
        startBar,
        barsPerPass,
        passes,
        orElseBars,
        likeRiff,
        key: own,
      }) => ({
        startS,
        endS,
        label,
        transposeOf,
        startBar,
        barsPerPass,
        passes,
        orElseBars,
        likeRiff,
        key: own,
      }),
    ),
    'drafted strums': draft.riffs.flatMap((r) =>
      r.strums.map(({ startTicks, durationTicks, frets, palmMute, dead }) => ({
        riff: r.id,
        startTicks,
        durationTicks,
        frets,
        palmMute,
        dead,
      })),
    ),
    'drafted sections': draft.sections.map((s) => [s.riffId, s.startBar, s.passes, s.transpose]),
    'drafted grid': [...draft.grid.beatsS, ...draft.grid.bars],
  };
}

function differences(before: Saved, now: Saved): string[] {
  const [then, since] = [partsOf(before), partsOf(now)];
  return Object.entries(then).flatMap(([part, members]) => {
    const others = since[part];
    const apart = members.filter((member, i) => !isDeepStrictEqual(member, others[i])).length;
    const more = Math.max(0, others.length - members.length);
    return apart + more === 0 ? [] : [`${apart + more} of ${members.length} ${part}`];
  });
}

const [songs, saved] = process.argv.slice(2);
if (!songs || !saved) {
  process.stderr.write('Give two folders: npm run bench:unchanged -- SONGS SAVED\n');
  process.exit(1);
}
mkdirSync(saved, { recursive: true });
const sounds = readdirSync(songs, { recursive: true, encoding: 'utf8' })
  .filter((name) => /\.(wav|flac|mp3|ogg)$/.test(name))
  .sort();
for (const name of sounds) {
  const analysis = analyse(readSound(join(songs, name)));
  const song = { ...PLAIN_SONG, title: basename(name), recordings: [{ id: 'recording', isReference: true }] };
  const draft = draftInto(song, analysis).document;
  // As it is stored: numbers lose nothing in JSON.
  const now = JSON.parse(JSON.stringify({ analysis, draft })) as Saved;
  const path = join(saved, `${basename(name)}.json`);
  if (!existsSync(path)) {
    writeFileSync(path, JSON.stringify(now));
    process.stdout.write(`${name}: saved, ${now.analysis.strums.length} strums\n`);
    continue;
  }
  const found = differences(JSON.parse(readFileSync(path, 'utf8')) as Saved, now);
  if (found.length > 0) process.exitCode = 1;
  const verdict = found.length === 0 ? 'the same' : `differs in ${found.join(', ')}`;
  process.stdout.write(`${name}: ${verdict} (${now.analysis.strums.length} strums)\n`);
}
