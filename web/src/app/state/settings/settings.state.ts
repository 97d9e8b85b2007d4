/** What the user prefers on this computer. */
export interface SettingsState {
  /** `auto` follows the operating system. */
  readonly theme: 'auto' | 'light' | 'dark';
  /** 0 to 1. */
  readonly volume: number;
}

/** Loud enough to hear, with room above: hearing comes first. */
export const DEFAULT_SETTINGS: SettingsState = { theme: 'auto', volume: 0.6 };
