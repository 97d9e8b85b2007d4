/** What somebody has written about a recording, from a file: for the commands that hold it against sound. */
import { readFile } from 'node:fs/promises';
import { writtenSchema, type Written } from '@wild-needle/contract';
import type { WrittenStrum } from '@wild-needle/core/check';

/** Throws a RangeError that says what can't be read. */
export async function readWritten(path: string): Promise<Written> {
  const text = await readFile(path, 'utf8').catch((cause: unknown) => {
    throw new RangeError(`${path} can't be read`, { cause });
  });
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (cause) {
    throw new RangeError(`${path} is not JSON`, { cause });
  }
  const parsed = writtenSchema.safeParse(json);
  if (parsed.success) return parsed.data;
  const [{ path: at, message }] = parsed.error.issues;
  throw new RangeError(
    `${path} is not wild-needle/written@1: ${[at.join('.'), message].filter(Boolean).join(': ')}`,
  );
}

export function writtenStrums({ tuning, strums }: Written): WrittenStrum[] {
  return strums.map(({ timeS, durationS, frets, palmMute, dead }) => ({
    timeS,
    endS: timeS + durationS,
    midi: dead
      ? []
      : frets
          .flatMap((fret, s) => (fret === null ? [] : [tuning.stringsMidi[s] + tuning.capo + fret]))
          .sort((a, b) => a - b),
    palmMuted: palmMute,
    dead,
  }));
}
