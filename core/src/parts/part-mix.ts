/** How loud each part of the band is. */
import { clamp, dbToRatio } from '../units';
import { PARTS, type Part } from './parts';

/** dB: under the lower one a part is not heard any more; over the upper one the sum clips. */
export const PART_LEVELS_DB = { from: -40, to: 6 } as const;

export interface PartMix {
  /** dB against the recording. */
  readonly levelsDb: Readonly<Record<Part, number>>;
  /** Nothing else is heard. */
  readonly alone: Part | null;
  readonly silent: readonly Part[];
}

export type PartGains = Readonly<Record<Part, number>>;

/** The recording as it is. */
export const WHOLE_BAND: PartMix = {
  levelsDb: { drums: 0, bass: 0, voice: 0, guitars: 0 },
  alone: null,
  silent: [],
};

/** The guitars, and the rest that is no drum, bass or voice. */
export const GUITARS_ALONE: PartGains = { drums: 0, bass: 0, voice: 0, guitars: 1 };

function ofParts<T>(value: (part: Part) => T): Readonly<Record<Part, T>> {
  return { drums: value('drums'), bass: value('bass'), voice: value('voice'), guitars: value('guitars') };
}

/** Factor of each part. One that is alone is heard though it is silent. */
export function gainsOf({ levelsDb, alone, silent }: PartMix): PartGains {
  const isHeard = (part: Part): boolean => (alone ? part === alone : !silent.includes(part));
  return ofParts((part) => (isHeard(part) ? dbToRatio(levelsDb[part]) : 0));
}

export function setLevel(mix: PartMix, part: Part, db: number): PartMix {
  const level = clamp(Math.round(db), PART_LEVELS_DB.from, PART_LEVELS_DB.to);
  return { ...mix, levelsDb: { ...mix.levelsDb, [part]: level } };
}

/** Alone, or all again. */
export function toggleAlone(mix: PartMix, part: Part): PartMix {
  return { ...mix, alone: mix.alone === part ? null : part };
}

export function toggleSilent(mix: PartMix, part: Part): PartMix {
  const silent = mix.silent.includes(part)
    ? mix.silent.filter((p) => p !== part)
    : PARTS.filter((p) => p === part || mix.silent.includes(p));
  return { ...mix, silent };
}
