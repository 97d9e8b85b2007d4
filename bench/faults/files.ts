/** Odd files as recordings: each ends in an answer of the table, none is kept by halves. */
import { audioProblemCodeSchema, errorSchema } from '@wild-needle/contract';
import { floatsOf, playlistsTo, wavOf } from '../../server/src/test/odd-files';
import type { Chance } from './chance';
import { tone } from './songs';
import type { System } from './system';

export interface FileFigures {
  files: number;
  taken: number;
  refused: number;
  /** Answers that are none of the table. */
  odd: string[];
  slowestS: number;
}

const HEADS = [
  'RIFF',
  'OggS',
  'fLaC',
  'ID3',
  '\xff\xfb',
  '\0\0\0\x18ftypM4A ',
  '\x1aE\xdf\xa3',
  '#EXTM3U\n',
  'FORM',
  '.snd',
  'MThd',
];

function oddFile(chance: Chance, whole: Buffer): Buffer {
  switch (chance.below(7)) {
    case 0:
      return chance.bytes(chance.below(3000));
    case 1:
      return Buffer.concat([Buffer.from(chance.of(HEADS), 'latin1'), chance.bytes(chance.below(3000))]);
    case 2:
      return wavOf(chance.bytes(4000), {
        channels: chance.of([0, 1, 2, 3, 8, 9, 64, 1000, 65_535]),
        bits: chance.of([0, 8, 16, 24, 32, 64, 65_535]),
        tag: chance.of([0, 1, 3, 6, 85, 65_534]),
        rate: chance.of([0, 1, 8000, 22_050, 4_294_967_295]),
      });
    case 3:
      return floatsOf(chance.of([Infinity, -Infinity, NaN, 1e38, 0, 0.5]));
    case 4:
      return Buffer.from(chance.of(Object.values(playlistsTo('/etc/passwd'))));
    case 5:
      return whole.subarray(0, chance.below(whole.length));
    default: {
      const changed = Buffer.from(whole);
      for (let i = 0; i < 1 + chance.below(60); i++)
        changed[chance.below(chance.next() < 0.5 ? 60 : whole.length)] = chance.below(256);
      return changed;
    }
  }
}

const AT_ONCE = 4;

export async function sendOddFiles(system: System, chance: Chance, count: number): Promise<FileFigures> {
  const figures: FileFigures = { files: count, taken: 0, refused: 0, odd: [], slowestS: 0 };
  const whole = tone(131, 1);
  const songsBefore = await songs(system);
  const files = Array.from({ length: count }, () => oddFile(chance, whole));
  const isNew = new Set<string>();
  const work = async (): Promise<void> => {
    for (let file = files.pop(); file; file = files.pop()) {
      const from = performance.now();
      const answer = await fetch(`${system.url}/api/recordings?fileName=${files.length}.mp3`, {
        method: 'POST',
        body: new Uint8Array(file),
      });
      figures.slowestS = Math.max(figures.slowestS, (performance.now() - from) / 1000);
      const body: unknown = await answer.json();
      if (answer.ok) {
        figures.taken++;
        isNew.add((body as { songId: string }).songId);
        continue;
      }
      figures.refused++;
      const { code } = errorSchema.parse(body);
      if (answer.status !== 422 || !audioProblemCodeSchema.safeParse(code).success) {
        figures.odd.push(`${answer.status} ${code} for ${file.subarray(0, 24).toString('hex')}`);
      }
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, work));
  const added = (await songs(system)) - songsBefore;
  if (added !== isNew.size) figures.odd.push(`${isNew.size} songs were told, ${added} are there`);
  return figures;
}

async function songs({ url }: System): Promise<number> {
  return ((await (await fetch(`${url}/api/songs`)).json()) as unknown[]).length;
}
