import { factsOfInterest, nameOfFact } from '../asked-facts';
import { parseDay } from '../../date';
import { isAgreed, isStale, kindsOf, statementsOf } from '../facts';
import { formatFactText, parseFactText } from '../fact-text';
import type { Fact, System } from '../schema';
import { editsByRow, type Refusal, type Sheet, type SheetSource } from './sheet';

/** One row a system, one column for every fact its products ask for or anybody recorded. */
export function factsSheet({ catalogue, systems, today, who }: SheetSource): Sheet {
  const kinds = kindsOf(catalogue);
  const products = new Map(catalogue.products.map((p) => [p.id, p]));
  const asked = new Map<string, readonly string[]>();
  const ids = new Set<string>();
  for (const system of systems) {
    const id = 'is' in system.product ? system.product.is : '';
    const own = asked.get(id) ?? factsOfInterest(products.get(id), { ...system, facts: {} });
    asked.set(id, own);
    for (const fact of own) ids.add(fact);
    for (const fact of Object.keys(system.facts ?? {})) ids.add(fact);
  }
  const byId = new Map(systems.map((s) => [s.id, s]));
  const day = parseDay(today) ?? 0;
  const source = who === '' ? 'typed in' : who;
  return {
    columns: [
      { id: 'name', name: 'name', width: 150, readOnly: true },
      ...[...ids].map((id) => ({
        id,
        name: nameOfFact(id, (f) => kinds.find(f)?.name),
        width: 130,
        ...(kinds.find(id)?.measure === 'switch' ? { choices: ['on', 'off', 'absent', '?'] } : {})
      }))
    ],
    rows: systems.map((s) => s.id),
    read: (row, column) => {
      const system = byId.get(row);
      if (column === 'name') return system?.name ?? '';
      return formatFactText(
        system?.facts && Object.hasOwn(system.facts, column) ? system.facts[column] : undefined
      );
    },
    mark: (row, column) => {
      const fact = byId.get(row)?.facts?.[column];
      const statements = statementsOf(fact);
      if (statements.length > 1 && !isAgreed(fact, kinds.find(column))) return 'disputed';
      return statements.some((s) => isStale(kinds.find(column), s, day)) ? 'stale' : undefined;
    },
    apply: (edits) => {
      const changed: System[] = [];
      const refused: Refusal[] = [];
      let cells = 0;
      for (const [row, list] of editsByRow(edits)) {
        const before = byId.get(row);
        if (!before) {
          refused.push(...list.map((e) => ({ ...e, why: 'add the system under Systems first' })));
          continue;
        }
        const facts: Record<string, Fact> = { ...before.facts };
        let hits = 0;
        for (const edit of list) {
          const text = edit.text.trim();
          const was = Object.hasOwn(facts, edit.column) ? facts[edit.column] : undefined;
          if (edit.column === 'name' || formatFactText(was) === text) continue;
          const fact = parseFactText(kinds.find(edit.column), text);
          if (text === '') delete facts[edit.column];
          else if (fact) facts[edit.column] = { ...fact, day: today, source } as Fact;
          else {
            refused.push({ ...edit, why: 'no value for this fact' });
            continue;
          }
          hits++;
        }
        if (hits === 0) continue;
        cells += hits;
        changed.push({ ...before, facts });
      }
      return { systems: changed, added: 0, cells, refused };
    }
  };
}
