// Which tests can see a change: every file a test file imports, directly or through others. A browser test also sees the pages it names,
// with whatever they import. What a test reads as a file and does not import - documents, the demo - touches the tests that name it.
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { root } from './install.mjs';

const ROUTES = join(root, 'src', 'routes');
const IMPORT = /(?:from|import)\s*\(?\s*['"]([^'"]+)['"]/g;
/** A path of the application, as tests write it: '/estate/system?at=...'. */
const PAGE = /['"`]\/([a-z][a-z/-]*)(?=[?'"`#])/g;
/** A file of the project, as tests write it. */
const FILE = /['"`]((?:demo|docs|scripts|static|tests\/fixtures)\/[\w./-]+)['"`]/g;

function fileOf(path) {
  const tries = [
    path,
    `${path}.ts`,
    `${path}.svelte.ts`,
    path.replace(/\.js$/, '.ts'),
    join(path, 'index.ts')
  ];
  return tries.find((t) => existsSync(t) && statSync(t).isFile());
}

function resolveImport(from, name) {
  if (name.startsWith('$core')) return fileOf(join(root, 'src', 'core', name.slice(5)));
  if (name.startsWith('$lib')) return fileOf(join(root, 'src', 'lib', name.slice(4)));
  if (name.startsWith('.')) return fileOf(resolve(dirname(from), name.split('?')[0]));
  return undefined;
}

/** The files of a page's folder, and of those around it. */
function routeFiles(path) {
  const found = [];
  for (let at = join(ROUTES, path); at.startsWith(ROUTES); at = dirname(at))
    if (existsSync(at))
      for (const name of readdirSync(at)) if (name.startsWith('+')) found.push(join(at, name));
  return found;
}

const made = new Map();
function importsOf(file) {
  const known = made.get(file);
  if (known) return known;
  const text = readFileSync(file, 'utf8');
  const found = [...text.matchAll(IMPORT)].flatMap(([, name]) => resolveImport(file, name) ?? []);
  if (file.endsWith('.spec.ts'))
    found.push(...[...text.matchAll(PAGE)].flatMap(([, path]) => routeFiles(path)));
  if (/\.(test|spec)\.ts$/.test(file))
    found.push(...[...text.matchAll(FILE)].map(([, path]) => join(root, path)).filter((p) => existsSync(p)));
  made.set(file, found);
  return found;
}

/** How few imports away the nearest changed file is; undefined where none is reached. */
function distanceTo(changed, from) {
  const seen = new Set([from]);
  for (let layer = [from], steps = 0; layer.length > 0; steps++) {
    if (layer.some((f) => changed.has(f))) return steps;
    layer = layer.flatMap((f) => (statSync(f).isFile() && /\.(ts|svelte|mjs)$/.test(f) ? importsOf(f) : []));
    layer = layer.filter((f) => !seen.has(f) && seen.add(f));
  }
  return undefined;
}

const testsIn = (folder, ending) =>
  readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
    .filter((f) => f.endsWith(ending))
    .map((f) => join(root, folder, f));

/** Test files that a change of these files can touch, those nearest to it first; paths from the project's root. */
export function testsTouchedBy(paths) {
  const changed = new Set(paths.map((p) => join(root, p)));
  const all = [
    ...testsIn('src', '.test.ts'),
    ...testsIn('tests/unit', '.test.ts'),
    ...testsIn('tests/browser', '.spec.ts')
  ];
  return all
    .map((file) => ({ file: relative(root, file), steps: distanceTo(changed, file) }))
    .filter(({ steps }) => steps !== undefined)
    .sort((a, b) => a.steps - b.steps || (a.file < b.file ? -1 : 1))
    .map(({ file }) => file);
}
