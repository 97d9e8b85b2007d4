import { describe, expect, it } from 'vitest';
import { droppedFiles } from './dropped-files';

/** As the File and Directory Entries API of the W3C hands a folder over. */
interface Tree {
  readonly [name: string]: Tree | null;
}

function entry(name: string, inside: Tree | null, path: string): object {
  const fullPath = `${path}/${name}`;
  if (!inside) {
    return { name, fullPath, isFile: true, file: (give: (f: File) => void) => give(new File(['x'], name)) };
  }
  const left = Object.entries(inside);
  const readEntries = (give: (all: object[]) => void): void =>
    give(left.splice(0, 2).map(([n, t]) => entry(n, t, fullPath)));
  return { name, fullPath, isDirectory: true, createReader: () => ({ readEntries }) };
}

function drop(tree: Tree): DragEvent {
  const items = Object.entries(tree).map(([name, inside]) => ({
    kind: 'file',
    webkitGetAsEntry: () => entry(name, inside, ''),
    getAsFile: () => new File(['x'], name),
  }));
  return { type: 'drop', dataTransfer: { items, files: [] } } as unknown as DragEvent;
}

describe('dropped files', () => {
  it('are those that were dropped, and of folders the recordings, in the order of their paths', async () => {
    const tree = {
      'notes.txt': null,
      Rehearsal: { 'take 10.wav': null, 'take 9.WAV': null, 'cover.jpg': null, June: { 'b.flac': null } },
    };
    expect((await droppedFiles(drop(tree))).map((f) => f.name)).toEqual([
      'notes.txt',
      'b.flac',
      'take 9.WAV',
      'take 10.wav',
    ]);
  });

  it('are none where a folder has no recording', async () => {
    expect(await droppedFiles(drop({ Pictures: { 'a.jpg': null } }))).toEqual([]);
  });
});
