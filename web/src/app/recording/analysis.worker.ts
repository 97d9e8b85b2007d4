/** Measures a recording, or a part of it, off the main thread: the same core that the server runs. */
import { confirmedIn } from '@wild-needle/core/draft';
import { analyse } from '@wild-needle/core/analysis';
import type { Confirmed, StereoSignal } from '@wild-needle/core/mir';
import { GUITARS_ALONE, type PartGains } from '@wild-needle/core/parts';
import { bandSignal, throughEars, type PieceSamples } from '@wild-needle/core/playback';
import { cleanPiecesAlong, piecesAlong } from './band-pieces';
import { isolationOf, toEarsOf } from './hearing';
import type { AnalysisAnswer, AnalysisTask } from './analysis-client';

/** The confirmed strums that the signal holds, on its own clock. */
function confirmedFrom({ signal, fromS, document }: AnalysisTask): Confirmed {
  const { referenceCents, spans, strums } = confirmedIn(document);
  const endS = fromS + signal.channels[0].length / signal.sampleRate;
  return {
    referenceCents,
    spans: spans.map((s) => ({ startS: s.startS - fromS, endS: s.endS - fromS })),
    strums: strums
      .filter((s) => s.timeS >= fromS && s.timeS < endS)
      .map((s) => ({ ...s, timeS: s.timeS - fromS })),
  };
}

const answer = (message: AnalysisAnswer): void => postMessage(message);

async function measure(task: AnalysisTask): Promise<void> {
  try {
    const { signal, fromS, hearing, addresses, cleanAddresses } = task;
    const heard = (pieceOf: PieceSamples, gains: PartGains): StereoSignal =>
      bandSignal(signal, fromS, pieceOf, gains);
    const toEars = (band: StereoSignal): StereoSignal =>
      throughEars(band, isolationOf(hearing), toEarsOf(hearing));
    const { parts } = hearing;
    const band = parts ? heard(await piecesAlong(signal, fromS, addresses), parts) : signal;
    const clean = await cleanPiecesAlong(signal, fromS, cleanAddresses, parts);
    const analysis = analyse(toEars(band), {
      guitars: clean && toEars(heard(clean, GUITARS_ALONE)),
      tuning: task.document.tuning,
      confirmed: confirmedFrom(task),
      onProgress: (share, doing) => answer({ kind: 'progress', share, doing }),
    });
    answer({ kind: 'done', analysis });
  } catch (error) {
    answer({ kind: 'failed', message: error instanceof Error ? error.message : String(error) });
  }
}

addEventListener('message', ({ data }: MessageEvent<AnalysisTask>) => void measure(data));
