import { readFileSync } from 'node:fs';
import { parseDay } from '../../src/core/date/day';
import { parseCatalogue } from '../../src/core/exchange/catalogue-file';
import { parseWorkspace } from '../../src/core/exchange/workspace-file';
import type { Catalogue } from '../../src/core/catalogue/schema';
import type { Estate } from '../../src/core/estate/schema';
import { plan, type PlanInput } from '../../src/core/plan/plan';
import type { Plan } from '../../src/core/plan/plan-types';
import { littleOf } from '../../scripts/little-demo';
import { isQuick } from './laws';

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

/** One of everything there is in the demo, on the same day. */
export const littleInput = (): PlanInput => {
  const { estate, ...rest } = demoInput();
  return { ...rest, estate: littleOf(estate) };
};

/** What a law is tried on: the demo; its little sister where a hundredth of laws is tried. */
export const lawInput = (): PlanInput => (isQuick ? littleInput() : demoInput());

const PLANS = new Map<PlanInput['every'], Plan>();

/** The demo's plan, found once for all who only read it: with every target, or goals alone. */
export function demoPlan(every: PlanInput['every'] = 'target'): Plan {
  const known = PLANS.get(every) ?? plan({ ...demoInput(), ...(every ? { every } : {}) });
  PLANS.set(every, known);
  return known;
}
