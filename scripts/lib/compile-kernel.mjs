/** The inner loop of the networks, from AssemblyScript to the bytes of a WebAssembly module. */
import asc from 'assemblyscript/asc';
import { join } from 'node:path';
import { ROOT } from './packages.mjs';
import { Stop } from './say.mjs';

const SOURCE = 'core/assembly/multiply-dense.ts';
/** No garbage collector, no checks: the caller lays out the memory. */
const OPTIONS = ['-O3', '--runtime', 'stub', '--noAssert', '--enable', 'simd', '--baseDir', ROOT];

export async function compileKernel() {
  let binary = null;
  const { error, stderr } = await asc.main([SOURCE, ...OPTIONS, '--outFile', 'kernel.wasm'], {
    writeFile: (_name, contents) => (binary = contents),
  });
  if (error || binary === null)
    throw new Stop(`${join(ROOT, SOURCE)} does not compile: ${stderr.toString()}`);
  return binary;
}
