/** Reads a list of machines from the command line (read.ts): put together anew each time, as run-plan.mjs does. */
import { mkdirSync, rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';

const root = resolve(import.meta.dirname, '..');
const outfile = resolve(root, `node_modules/.cache/read-${process.pid}.mjs`);
mkdirSync(resolve(outfile, '..'), { recursive: true });
await build({
  entryPoints: [resolve(root, 'scripts/read.ts')],
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  alias: { $core: resolve(root, 'src/core'), $lib: resolve(root, 'src/lib') },
  outfile,
  logLevel: 'error'
});
process.on('exit', () => rmSync(outfile, { force: true }));
await import(pathToFileURL(outfile).href);
