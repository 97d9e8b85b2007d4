/** What a user has set by hand in a song that nothing was written into yet: a draft leaves it as it is. */
import { PLAIN_SONG, type SongDocument } from './document';

const IS_SET = {
  tuning: ({ tuning: { stringsMidi, capo } }) =>
    capo !== PLAIN_SONG.tuning.capo || stringsMidi.join() !== PLAIN_SONG.tuning.stringsMidi.join(),
  guitar2: ({ guitar2 }) => guitar2 !== null,
  key: ({ key }) => key !== null,
  referenceOffsetCents: ({ referenceOffsetCents }) => referenceOffsetCents !== 0,
  tuneTo: ({ tuneTo }) => tuneTo !== PLAIN_SONG.tuneTo,
  grid: ({ grid }) => grid.bars.length > 0,
  loops: ({ loops }) => loops.length > 0,
} as const satisfies Partial<Record<keyof SongDocument, (document: SongDocument) => boolean>>;

export type HandField = keyof typeof IS_SET;
export const HAND_FIELDS = Object.keys(IS_SET) as readonly HandField[];

/** In the order of {@link HAND_FIELDS}. */
export function handFieldsOf(document: SongDocument): HandField[] {
  return HAND_FIELDS.filter((field) => IS_SET[field](document));
}
