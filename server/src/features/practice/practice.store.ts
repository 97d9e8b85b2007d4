/** The log of practising. */
import type { PracticeRound } from '@wild-needle/contract';
import { PracticeRoundRow } from '../../db/models';

export interface PracticeStore {
  /** All rounds of a song, in order of time. */
  roundsOf(songId: string): Promise<PracticeRound[]>;
  /** A round that is there already stays as it is: it is sent again after a lost answer. */
  keep(round: PracticeRound): Promise<void>;
}

export function createPracticeStore(): PracticeStore {
  return {
    async roundsOf(songId) {
      const rows = await PracticeRoundRow.findAll({ where: { songId }, order: ['at', 'id'] });
      return rows.map(({ id, at, item, way, isWhole, percent, answer, seconds, heard }) => ({
        ...{ id, songId, item, way, isWhole, percent, answer, seconds, heard },
        at: at.toISOString(),
      }));
    },
    async keep(round) {
      await PracticeRoundRow.bulkCreate([{ ...round, at: new Date(round.at) }], { ignoreDuplicates: true });
    },
  };
}
