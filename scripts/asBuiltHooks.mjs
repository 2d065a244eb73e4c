import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { transform } from 'esbuild';

/** @type {import('node:module').LoadHook} */
export async function load(url, context, next) {
  if (!/\.tsx?$/.test(url)) return next(url, context);
  const file = fileURLToPath(url);
  const { code } = await transform(await readFile(file, 'utf8'), {
    loader: url.endsWith('x') ? 'tsx' : 'ts',
    format: 'esm',
    target: 'node20',
    sourcefile: file,
    sourcemap: 'inline',
  });
  return { format: 'module', source: code, shortCircuit: true };
}
