/** A strum in words: for a screen reader, and for the panel. */
import type { Strum } from '@wild-needle/core/riff';

const BEND_WORDS: Readonly<Record<number, string>> = {
  50: 'a quarter tone',
  100: 'a semitone',
  200: 'a whole tone',
  300: 'three semitones',
};

/** What is marked on a strum, most telling first. */
export function markWords({ palmMute, dead, rest, marks }: Strum): string[] {
  if (rest) return ['rest'];
  return [
    dead ? 'dead stroke' : '',
    palmMute ? 'palm mute' : '',
    marks.join === 'slide' ? 'slid into' : '',
    marks.join === 'hammer' ? 'hammered or pulled off' : '',
    marks.join === 'tie' ? 'tied' : '',
    marks.slideIn === null ? '' : `slid into from ${marks.slideIn}`,
    marks.slideOut === null ? '' : `slid ${marks.slideOut} and away`,
    marks.bendCents > 0 ? `bent by ${BEND_WORDS[marks.bendCents] ?? `${marks.bendCents} cents`}` : '',
    marks.vibrato ? 'vibrato' : '',
    marks.harmonic === null ? '' : `${marks.harmonic} harmonic`,
    marks.whammyBar === null ? '' : `bar ${marks.whammyBar}`,
    marks.length === 'ring' ? 'ringing on' : marks.length === 'short' ? 'short' : '',
    marks.accent ? 'accent' : '',
    marks.stroke === null ? '' : `${marks.stroke} stroke`,
  ].filter((w) => w !== '');
}

/** 'E5 palm mute: string 6 fret 0, string 5 fret 2' */
export function spokenStrum(strum: Strum, name: string): string {
  const words = markWords(strum).join(', ');
  if (strum.dead || strum.rest) return words;
  if (strum.frets.length === 0) return 'not written yet';
  const frets = strum.frets.map((f) => `string ${f.string} fret ${f.fret}`).join(', ');
  return `${name}${words === '' ? '' : ` ${words}`}: ${frets}`;
}
