/** Judges what an input hears, round by round, off the main thread. A round ends when its last strum has sounded, which is a moment into the next. */
import { createLiveJudge, playSimulated, SIMULATED_DELAY_S, type LiveJudge } from '@wild-needle/core/live';
import type { HearAnswer, HearTask, NumberedRound } from './hear-client';

/** Behind the end of a round, for what is played late. */
const LATE_S = 0.15;
/** While the delay of the device is not known. */
const LONGEST_DELAY_S = 0.2;

let judge: LiveJudge | null = null;
let rounds: NumberedRound[] = [];
let simulated: { readonly sampleRate: number; readonly cents: number } | null = null;
/** What the player who is not there plays in the present round, and how much of it was heard. */
let playing: { readonly startS: number; readonly samples: Float32Array } | null = null;
let heardUntilS: number | null = null;

const answer = (message: HearAnswer): void => postMessage(message);

function begin(round: NumberedRound | undefined): void {
  if (round) judge?.begin(round);
}

/** After every piece: what is due is answered, and a round that has sounded is summed up. */
function goOn(nowS: number): void {
  const [round] = rounds;
  if (!judge || !round) return;
  const answers = judge.answers();
  if (answers.length > 0) answer({ kind: 'strums', number: round.number, answers });
  if (nowS < round.endS + (judge.delayS ?? LONGEST_DELAY_S) + LATE_S) return;
  const judged = judge.end();
  if (judged) answer({ kind: 'round', number: round.number, judged, delayS: judge.delayS });
  rounds = rounds.slice(1);
  begin(rounds.at(0));
}

/** Hands over what would have come in since. */
function playOn(nowS: number): void {
  const fromS = (heardUntilS ??= nowS);
  if (!judge || !simulated || nowS <= fromS) return;
  const { sampleRate } = simulated;
  const samples = new Float32Array(Math.round((nowS - fromS) * sampleRate));
  if (playing) {
    const at = Math.round((fromS - playing.startS) * sampleRate);
    const part = playing.samples.subarray(Math.max(0, at), Math.max(0, at + samples.length));
    samples.set(part.subarray(0, samples.length), Math.min(samples.length, Math.max(0, -at)));
  }
  judge.hear(fromS, samples);
  heardUntilS = fromS + samples.length / sampleRate;
}

function run(task: HearTask): void {
  if (task.kind === 'open') {
    const { sampleRate, referenceCents, isSimulated } = task;
    const delayS = isSimulated ? SIMULATED_DELAY_S : task.delayS;
    judge = createLiveJudge({ sampleRate, delayS, referenceCents });
    simulated = isSimulated ? { sampleRate, cents: referenceCents } : null;
    [rounds, playing, heardUntilS] = [[], null, null];
  } else if (task.kind === 'round') {
    rounds = [...rounds, task.round];
    if (rounds.length === 1) begin(task.round);
    if (simulated) {
      const { number, strums, startS: fromS, endS } = task.round;
      const { sampleRate, cents } = simulated;
      const toS = endS + LATE_S;
      playing = {
        startS: fromS,
        samples: playSimulated(strums, { number, fromS, toS, sampleRate, cents }),
      };
    }
  } else if (task.kind === 'stop') {
    judge?.end();
    [rounds, playing] = [[], null];
  } else if (task.kind === 'hear') {
    judge?.hear(task.startS, task.samples);
    goOn(task.startS);
  } else {
    playOn(task.nowS);
    goOn(task.nowS);
  }
}

addEventListener('message', ({ data }: MessageEvent<HearTask>) => {
  try {
    run(data);
  } catch (error) {
    answer({ kind: 'failed', message: error instanceof Error ? error.message : String(error) });
  }
});
