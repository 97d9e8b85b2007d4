/** What the player prefers: one row. */
import { settingsSchema, type Settings } from '@wild-needle/contract';
import { SettingsRow } from '../../db/models';

export interface SettingsStore {
  /** Null while nothing was ever kept. */
  read(): Promise<Settings | null>;
  keep(settings: Settings): Promise<void>;
}

export function createSettingsStore(): SettingsStore {
  return {
    async read() {
      const row = await SettingsRow.findByPk(1);
      return row && settingsSchema.parse(row.value);
    },
    async keep(value) {
      await SettingsRow.upsert({ id: 1, value });
    },
  };
}
