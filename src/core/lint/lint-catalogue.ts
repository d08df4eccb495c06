import { FactKinds } from '../condition';
import type { Day } from '../date';
import { modelOf } from '../compile';
import { type Catalogue, type Product, type Ruling, settleCatalogue } from '../catalogue';
import { LINT_KINDS, type LintContext, type LintFinding } from './finding';
import { lintDates } from './lint-dates';
import { lintHops } from './lint-hops';
import { lintNeeds } from './lint-needs';
import { lintSources } from './lint-sources';

/**
 * What a catalogue that can be read still has amiss: contradictions, hops to nowhere, holes, stale sources, disputes
 * nobody has ruled on. Each with its place, and a mend where one is plain. Faults first, then in the order of the file.
 */
export function lintCatalogue(
  catalogue: Catalogue,
  today: Day,
  rulings: readonly Ruling[] = []
): LintFinding[] {
  const findings: LintFinding[] = [];
  const add = (finding: LintFinding): void => void findings.push(finding);
  const kinds = new FactKinds(catalogue.facts);
  catalogue.products.forEach((product, i) => {
    const context: LintContext = {
      catalogue,
      product,
      model: modelOf(product),
      kinds,
      today,
      at: ['products', i],
      add
    };
    lintDates(context);
    lintHops(context);
    lintNeeds(context);
    lintServiceEnds(context);
  });
  lintSources(catalogue, today, add);
  for (const dispute of settleCatalogue(catalogue, rulings).disputes)
    if (dispute.ruled === undefined)
      add({
        code: 'disputed',
        kind: 'note',
        path: findEntry(catalogue.products, dispute.entry),
        detail: {
          entry: dispute.entry,
          fields: dispute.fields.join(', '),
          by: dispute.statements.map((s) => s.key).join(', ')
        }
      });
  return findings.sort((a, b) => LINT_KINDS.indexOf(a.kind) - LINT_KINDS.indexOf(b.kind));
}

function lintServiceEnds({ product, at, add }: LintContext): void {
  product.releases.forEach((release, i) => {
    const service = release.service ?? product.lines?.find((l) => l.id === release.line)?.service ?? [];
    if (service.length === 0)
      add({
        code: 'no-service-end',
        kind: 'hole',
        path: [...at, 'releases', i],
        detail: { release: release.id, product: product.name },
        mend: [
          {
            kind: 'set',
            path: [...at, 'releases', i, 'service'],
            value: [{ phase: 'full', until: 'unknown' }]
          }
        ]
      });
  });
}

/** The file path of an entry path. */
function findEntry(products: readonly Product[], entry: string): readonly (string | number)[] {
  let node: unknown = products;
  const path: (string | number)[] = ['products'];
  for (const part of entry.split('/').map((p) => p.replaceAll('%2F', '/'))) {
    const isList = Array.isArray(node);
    const list = isList ? (node as { id?: string; phase?: string }[]) : [];
    const step = isList ? list.findIndex((e) => e.id === part || e.phase === part) : part;
    node = (node as Record<string | number, unknown>)[step];
    path.push(step);
    if (node === undefined) break;
  }
  return path;
}
