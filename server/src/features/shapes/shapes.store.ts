/** The player's own shapes. */
import type { Shape } from '@wild-needle/contract';
import { ShapeRow } from '../../db/models';

export interface ShapesStore {
  /** Oldest first: their keys stay the same when one is added. */
  list(): Promise<Shape[]>;
  keep(shape: Shape): Promise<void>;
  /** False when there was none. */
  forget(id: string): Promise<boolean>;
}

export function createShapesStore(): ShapesStore {
  return {
    async list() {
      const rows = await ShapeRow.findAll({
        order: [
          ['createdAt', 'ASC'],
          ['id', 'ASC'],
        ],
      });
      return rows.map(({ id, name, notes }) => ({ id, name, notes }));
    },
    async keep(shape) {
      await ShapeRow.upsert(shape, { fields: ['name', 'notes'] });
    },
    async forget(id) {
      return (await ShapeRow.destroy({ where: { id } })) > 0;
    },
  };
}
