import { readFileSync } from 'node:fs';
import { parseDay } from '../../src/core/date/day';
import { parseCatalogue } from '../../src/core/exchange/catalogue-file';
import { parseWorkspace } from '../../src/core/exchange/workspace-file';
import type { Catalogue } from '../../src/core/catalogue/schema';
import type { Estate } from '../../src/core/estate/schema';
import type { PlanInput } from '../../src/core/plan/plan';

export const demoCatalogueText = (): string => readFileSync('demo/catalogue.yaml', 'utf8');

let catalogue: Catalogue | undefined;

/** The demo's catalogue, read once; whoever changes it makes a copy. */
export const demoCatalogue = (): Catalogue => (catalogue ??= readDemo());

function readDemo(): Catalogue {
  const read = parseCatalogue(demoCatalogueText());
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  return read.value;
}

function demoEstate(): Estate {
  const read = parseWorkspace(readFileSync('demo/saltmarsh.json', 'utf8'));
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  const { format: _format, version: _version, catalogue: _catalogue, ...estate } = read.value;
  void [_format, _version, _catalogue];
  return estate;
}

/** The demo as planning takes it, on its own fixed day. */
export const demoInput = (): PlanInput => ({
  catalogue: demoCatalogue(),
  estate: demoEstate(),
  today: parseDay('2031-03-10') ?? 0
});
