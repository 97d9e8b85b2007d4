/** What the player's ear has named. */
import { Op } from 'sequelize';
import type { Guess } from '@wild-needle/contract';
import { GuessRow } from '../../db/models';

export interface GuessesStore {
  /** In order of time. */
  since(time: Date): Promise<Guess[]>;
  /** A guess that is there already stays as it is: it is sent again after a lost answer. */
  keep(guess: Guess): Promise<void>;
}

export function createGuessesStore(): GuessesStore {
  return {
    async since(time) {
      const rows = await GuessRow.findAll({ where: { at: { [Op.gte]: time } }, order: ['at', 'id'] });
      return rows.map(({ id, at, songId, place, guessed, heard }) => ({
        ...{ id, songId, place, guessed, heard },
        at: at.toISOString(),
      }));
    },
    async keep(guess) {
      await GuessRow.bulkCreate([{ ...guess, at: new Date(guess.at) }], { ignoreDuplicates: true });
    },
  };
}
