import { readdirSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import ts from 'typescript';
import type { Mutation } from './mutations';

interface Found {
  readonly path: string;
  readonly mutated: string;
}

/** The core as it is searched for faults to put in: everything but tests and the verifiers. */
const sources: ReadonlyMap<string, string> = new Map(
  readdirSync(resolve('src/core'), { recursive: true, encoding: 'utf8' })
    .filter((f) => f.endsWith('.ts') && !f.endsWith('.test.ts') && !/(^|[\\/])verify/.test(f))
    .map((f) => join(resolve('src/core'), f))
    .map((path) => [path, readFileSync(path, 'utf8')])
);

type Ranges = ReadonlyMap<string, readonly (readonly [number, number])[]>;
const PARSED = new Map<string, Ranges>();

/** Every function, method or top-level arrow of a source by its name, as [start, end); none inside another of that name. */
function rangesIn(path: string, source: string): Ranges {
  const known = PARSED.get(path);
  if (known) return known;
  const found = new Map<string, (readonly [number, number])[]>();
  const visit = (node: ts.Node, inside: readonly string[]): void => {
    const name =
      (ts.isFunctionDeclaration(node) ||
        ts.isMethodDeclaration(node) ||
        ts.isGetAccessorDeclaration(node) ||
        ts.isVariableDeclaration(node)) &&
      node.name?.getText();
    if (name && !inside.includes(name))
      found.set(name, [...(found.get(name) ?? []), [node.getStart(), node.getEnd()]]);
    ts.forEachChild(node, (child) => visit(child, name ? [...inside, name] : inside));
  };
  visit(ts.createSourceFile('x.ts', source, ts.ScriptTarget.Latest, true), []);
  PARSED.set(path, found);
  return found;
}

/** Where a fault goes. Throws where its place is not found exactly once. */
function findPlaceOf({ name, in: inside, find, replace }: Mutation): Found {
  const words = find.trim().split(/\s+/);
  const pattern = words.map((w) => w.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('\\s+');
  const found: Found[] = [];
  for (const [path, source] of sources) {
    if (!source.includes(inside.replace('#', ''))) continue;
    for (const [start, end] of rangesIn(path, source).get(inside) ?? []) {
      const body = source.slice(start, end);
      for (const match of body.matchAll(new RegExp(pattern, 'g'))) {
        const at = start + match.index;
        found.push({ path, mutated: source.slice(0, at) + replace + source.slice(at + match[0].length) });
      }
    }
  }
  const [only] = found;
  if (!only || found.length > 1) throw new Error(`"${name}": found ${found.length} times in ${inside}`);
  return only;
}

const exactly = (path: string): RegExp => new RegExp(`^${path.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&')}$`);

/** A module of the tests with one fault put into the core beneath it, bundled and loaded on its own. */
export async function loadMutated<T>(mutation: Mutation, entry: string, outfile: string): Promise<T> {
  const { path, mutated } = findPlaceOf(mutation);
  await build({
    entryPoints: [resolve(entry)],
    bundle: true,
    format: 'esm',
    // What is not ours is not bundled anew for every fault.
    packages: 'external',
    outfile,
    logLevel: 'error',
    plugins: [
      {
        name: 'mutate',
        setup: (b) => b.onLoad({ filter: exactly(path) }, () => ({ contents: mutated, loader: 'ts' }))
      }
    ]
  });
  return (await import(pathToFileURL(outfile).href)) as T;
}
