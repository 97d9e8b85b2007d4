/**
 * `npm run build:kernel`: compiles `core/assembly/multiply-dense.ts` to WebAssembly and writes it where the core reads it from,
 * as text: so it needs no request in the browser and no file access in a worker.
 */
import { Buffer } from 'node:buffer';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { compileKernel } from './lib/compile-kernel.mjs';
import { ROOT } from './lib/packages.mjs';

const HEAD = `/** Made by \`npm run build:kernel\` from \`core/assembly/multiply-dense.ts\`: a WebAssembly module in base64. */\n`;

const text = Buffer.from(await compileKernel()).toString('base64');
writeFileSync(
  join(ROOT, 'core/src/mir/net/dense-kernel-wasm.ts'),
  `${HEAD}export const DENSE_WASM =\n  '${text}';\n`,
);
