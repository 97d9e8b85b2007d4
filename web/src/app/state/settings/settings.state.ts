/** What the user prefers on this computer: how it looks and sounds, and the guitar that is played. */
import { USUAL_SCALE_MM } from '@wild-needle/core/guitar';
import { DEFAULT_STAIR, type StairSettings } from '@wild-needle/core/practice';
import type { Spelling } from '@wild-needle/core/theory';

export interface SettingsState {
  /** `auto` follows the operating system. */
  readonly theme: 'auto' | 'light' | 'dark';
  /** 0 to 1. */
  readonly volume: number;
  /** Of the click against full scale, 0 to 1. */
  readonly clickLevel: number;
  /** A bar is counted before playback starts. */
  readonly countIn: boolean;
  /** Check covers what it has heard until the ear has named it. */
  readonly earFirst: boolean;
  /** MIDI pedals by what they do, as `{ loop: 'control 64' }`. */
  readonly pedals: Readonly<Record<string, string>>;
  /** How notes are named. */
  readonly spelling: Spelling;
  /** Name of a set of `STRING_SETS`. */
  readonly stringSet: string;
  /** How Practice goes from slow to fast. */
  readonly stair: StairSettings;
  /** That the player has for practising a day. */
  readonly practiceMinutes: number;
  /** From the loudspeaker back through the input; null until it is measured. */
  readonly inputDelayMs: number | null;
  /** Length of the open strings. */
  readonly scaleMm: number;
}

/** Loud enough to hear, with room above: hearing comes first. */
export const DEFAULT_SETTINGS: SettingsState = {
  theme: 'auto',
  volume: 0.6,
  clickLevel: 0.4,
  countIn: false,
  earFirst: false,
  pedals: {},
  spelling: 'key',
  stringSet: '10–46',
  stair: DEFAULT_STAIR,
  practiceMinutes: 20,
  inputDelayMs: null,
  scaleMm: USUAL_SCALE_MM,
};
