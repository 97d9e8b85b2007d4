/** The WebAssembly that weighs the inputs of the networks is what its source compiles to, see `npm run build:kernel`. */
import { describe, expect, it } from 'vitest';
import { compileKernel } from '../../scripts/lib/compile-kernel.mjs';
import { DENSE_WASM } from '../src/mir/net/dense-kernel-wasm';

describe('the kernel of the networks', () => {
  it('is its source, compiled', async () => {
    expect(DENSE_WASM).toBe(Buffer.from(await compileKernel()).toString('base64'));
  });
});
