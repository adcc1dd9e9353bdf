import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ensurePackages, root } from './setup.mjs';

/** Kernels that are written in WebAssembly text: the text's path without its ending, beside which the module that holds its bytes stands. */
export const KERNELS = ['src/core/clean/sigmaKernel'];

/** The module for a kernel: its bytes as hexadecimal digits, so that they load anywhere without a fetch. */
export async function kernelModule(path) {
  const { default: startWabt } = await import('wabt');
  const wabt = await startWabt();
  const name = path.split('/').pop();
  const text = readFileSync(join(root, `${path}.wat`), 'utf8');
  const { buffer } = wabt.parseWat(`${name}.wat`, text, { simd: true }).toBinary({});
  const lines = Buffer.from(buffer).toString('hex').match(/.{1,160}/g);
  return `/** Made from ${name}.wat by \`npm run kernels\`. */\nexport const ${name.toUpperCase().replace('KERNEL', '_KERNEL')} =\n${lines.map((line) => `  '${line}'`).join(' +\n')};\n`;
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  ensurePackages();
  for (const path of KERNELS) writeFileSync(join(root, `${path}.ts`), await kernelModule(path));
}
