/** The layout of a written row as the screens use it: that of core, with its strums in words for a screen reader. */
import { layoutRow as layoutSilentRow, type LayoutOptions, type RowLayout } from '@wild-needle/core/sheet';
import type { Riff } from '@wild-needle/core/riff';
import { spokenStrum } from './strum-words';

export { CHARACTER_WIDTH, chordNameOf, xOf } from '@wild-needle/core/sheet';
export type { Join, RowLayout, StrumBlock, TickWindow } from '@wild-needle/core/sheet';

export function layoutRow(riff: Riff, options: Omit<LayoutOptions, 'speak'>): RowLayout {
  return layoutSilentRow(riff, { ...options, speak: spokenStrum });
}
