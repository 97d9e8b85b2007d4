/** How loud an input is: now, and at its loudest in the last seconds, in dB under full scale. */

/** What nobody can hear. */
export const SILENT_DB = -90;
const LOUDEST_OF_S = 3;

export interface InputLevel {
  readonly nowDb: number;
  readonly loudestDb: number;
}

export const SILENCE: InputLevel = { nowDb: SILENT_DB, loudestDb: SILENT_DB };

export function peakDb(samples: Float32Array): number {
  let peak = 0;
  for (const x of samples) peak = Math.max(peak, Math.abs(x));
  return Math.max(SILENT_DB, 20 * Math.log10(peak + 1e-9));
}

/** Takes the peaks of pieces as they come, with the time of each. */
export function createLevelMeter(): (timeS: number, db: number) => InputLevel {
  let last: { readonly timeS: number; readonly db: number }[] = [];
  return (timeS, db) => {
    last = [...last.filter((p) => p.timeS > timeS - LOUDEST_OF_S), { timeS, db }];
    return { nowDb: db, loudestDb: Math.max(...last.map((p) => p.db)) };
  };
}
