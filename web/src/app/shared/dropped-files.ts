/** What was dropped: files, and of folders the recordings that lie in them, however deep. */
import { fromEvent } from 'file-selector';
import { TAKEN_ENDINGS } from '@wild-needle/contract';

export const isRecording = ({ name }: File): boolean =>
  TAKEN_ENDINGS.some((ending) => name.toLowerCase().endsWith(ending));

/** A file by itself is taken as it is, whatever it is called: it is told why it can't be used. In folders lie covers and notes too. */
export async function droppedFiles(event: DragEvent): Promise<readonly File[]> {
  const files = (await fromEvent(event)).filter((file) => file instanceof File);
  const folderOf = (file: File & { path?: string }): string =>
    (file.path ?? '')
      .replace(/^\.?\/+/, '')
      .split('/')
      .slice(0, -1)
      .join('/');
  const path = (file: File): string => `${folderOf(file)}/${file.name}`;
  return files
    .filter((file) => folderOf(file) === '' || isRecording(file))
    .sort((a, b) => path(a).localeCompare(path(b), undefined, { numeric: true }));
}
