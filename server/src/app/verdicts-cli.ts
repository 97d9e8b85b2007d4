/**
 * `npm run -s verdicts -- AUDIO WRITTEN.json`: how far each strum that is written about a recording is doubted, as one JSON object on
 * standard output; see `contract/src/verdicts.ts`. Progress goes to standard error; bad input ends with one sentence and exit
 * code 1.
 */
import type { Verdicts } from '@wild-needle/contract';
import type { Judgement } from '@wild-needle/core/check';
import { judgeFile } from '../audio/judge-file';
import { endWith, progressLines } from './command-line';
import { readWritten, writtenStrums } from './written-file';

const rounded = (value: number): number => Math.round(1e4 * value) / 1e4;

/** Why a strum is doubted; '' where it is not. */
function reasonOf({ verdict, reason, heard }: Judgement): string {
  if (verdict === 'agrees') return '';
  switch (reason.kind) {
    case 'not-heard':
      return 'Nothing is struck here.';
    case 'time': {
      const ms = Math.round(1000 * reason.offsetS);
      return `The same is struck ${Math.abs(ms)} ms ${ms > 0 ? 'later' : 'earlier'}, where nothing is written.`;
    }
    case 'covered':
      return `The ${reason.by} covers ${reason.notes.join(' ')}.`;
    case 'mute':
      return { dead: 'A dead stroke.', muted: 'Muted by the palm.', ringing: 'Ringing.' }[reason.heard];
    case 'notes':
      return heard && heard.midi.length > 0
        ? `Heard instead: ${heard.midi.join(' ')}.`
        : 'Other notes are heard.';
  }
}

/** Throws an AudioProblem or a RangeError that says what would work. */
export async function verdictsOf(
  args: readonly string[],
  onProgress: (share: number, doing: string) => void = () => undefined,
): Promise<Verdicts> {
  if (args.length !== 2) {
    throw new RangeError('Give a recording and what is written: npm run -s verdicts -- AUDIO WRITTEN.json');
  }
  const written = await readWritten(args[1]);
  const { judgements, extra } = await judgeFile(args[0], writtenStrums(written), onProgress);
  return {
    schema: 'wild-needle/verdicts@1',
    strums: judgements.map((judgement) => {
      const { verdict, doubt, kinds, heard, offsetS } = judgement;
      return {
        verdict,
        doubt: rounded(doubt),
        kinds: {
          notes: rounded(kinds.notes),
          mute: rounded(kinds.mute),
          time: rounded(kinds.time),
          there: rounded(kinds.there),
        },
        heard: heard && {
          midi: heard.midi,
          palmMute: heard.palmMuted,
          dead: heard.dead,
          offsetMs: Math.round(1000 * (offsetS ?? 0)),
        },
        reason: reasonOf(judgement),
      };
    }),
    extra: extra.map(({ timeS, midi, confidence }) => ({
      timeS: rounded(timeS),
      midi,
      confidence: rounded(confidence),
    })),
  };
}

if (import.meta.filename === process.argv[1]) {
  verdictsOf(process.argv.slice(2), progressLines()).then(
    (verdicts) => process.stdout.write(`${JSON.stringify(verdicts)}\n`),
    endWith,
  );
}
