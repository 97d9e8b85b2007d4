/**
 * How hard a string pulls, from its weight, length and pitch: T = μ (2 L f)², the frequency of an ideal string solved for its
 * tension (Mersenne 1636; Fletcher and Rossing, "The Physics of Musical Instruments", 2nd ed. 1998, section 2.2).
 */

export interface StringGauge {
  /** Outer diameter, inches, as strings are sold. */
  readonly inches: number;
  readonly isWound: boolean;
}

/** A usual set for six strings, 10 to 46, highest string first; heavier ones follow for a seventh and eighth string. */
export const USUAL_GAUGES: readonly StringGauge[] = [
  { inches: 0.01, isWound: false },
  { inches: 0.013, isWound: false },
  { inches: 0.017, isWound: false },
  { inches: 0.026, isWound: true },
  { inches: 0.036, isWound: true },
  { inches: 0.046, isWound: true },
  { inches: 0.059, isWound: true },
  { inches: 0.074, isWound: true },
];

function set(
  name: string,
  thousandths: readonly number[],
  wound: number,
): { name: string; gauges: StringGauge[] } {
  const six = thousandths.map((t, i) => ({ inches: t / 1000, isWound: i >= thousandths.length - wound }));
  return { name, gauges: [...six, ...USUAL_GAUGES.slice(6)] };
}

/** Sets as they are sold, highest string first (common practice; diameters in thousandths of an inch). */
export const STRING_SETS: readonly { readonly name: string; readonly gauges: readonly StringGauge[] }[] = [
  set('9–42', [9, 11, 16, 24, 32, 42], 3),
  set('10–46', [10, 13, 17, 26, 36, 46], 3),
  set('10–52', [10, 13, 17, 30, 42, 52], 3),
  set('11–49', [11, 14, 18, 28, 38, 49], 3),
  set('12–54', [12, 16, 20, 32, 42, 54], 3),
  set('12–60', [12, 16, 20, 34, 46, 60], 3),
];

/** Lengths of the open strings, mm: the two usual ones, and longer ones for low tunings (common practice). */
export const SCALES_MM = [628.7, 647.7, 673.1, 685.8] as const;

/** 25.5 inches, the longer of the two common scale lengths of electric guitars. */
export const USUAL_SCALE_MM = 647.7;

const MM_PER_INCH = 25.4;
/** Kilograms per cubic metre: spring steel. */
const STEEL_DENSITY = 7850;
/** A winding leaves gaps: such a string weighs this share of a solid one as thick (common practice, by makers' tables). */
const WOUND_SHARE = 0.83;
const STANDARD_GRAVITY = 9.80665;

/** Kilograms per metre. */
export function unitWeight({ inches, isWound }: StringGauge): number {
  const metres = (inches * MM_PER_INCH) / 1000;
  return STEEL_DENSITY * Math.PI * (metres / 2) ** 2 * (isWound ? WOUND_SHARE : 1);
}

/** Kilograms-force. */
export function stringTension(gauge: StringGauge, freqHz: number, scaleMm = USUAL_SCALE_MM): number {
  const newton = unitWeight(gauge) * (2 * (scaleMm / 1000) * freqHz) ** 2;
  return newton / STANDARD_GRAVITY;
}

export type TensionVerdict = 'slack' | 'good' | 'tight' | 'too-tight';

/**
 * Kilograms-force. The lightest usual set, 9 to 42 in standard tuning, pulls least on its second string: 5.0 by the formula above,
 * which is what makers print for it (from memory); a plain string is slack a whole tone below that. A wound one is thick and stiff,
 * and wants more: a 46 stands a minor third under E (5.7) and buzzes at C (5.1), where players take thicker ones (common practice).
 */
const PLAIN_SLACK_BELOW = 4.2;
const WOUND_SLACK_BELOW = 5.4;
const TIGHT_FROM = 10;
/** Plain steel breaks at about twice this for the thinnest string: a note more is a risk for the eyes. */
const TOO_TIGHT_FROM = 12;

export function judgeTension(kg: number, isWound: boolean): TensionVerdict {
  if (kg < (isWound ? WOUND_SLACK_BELOW : PLAIN_SLACK_BELOW)) return 'slack';
  if (kg >= TOO_TIGHT_FROM) return 'too-tight';
  return kg >= TIGHT_FROM ? 'tight' : 'good';
}
