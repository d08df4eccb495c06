import { type Catalogue, Names } from '../catalogue';
import { type Estate, formatFactText, type System } from '../estate';
import { formatCsv } from './csv-out';
import { IMPORT_FIELDS, type ImportField } from './mapping';

const FIELDS = IMPORT_FIELDS.filter((f) => !['build', 'activated', 'nodeName'].includes(f));

/**
 * The estate as a list of machines; taking it in again changes nothing. Columns are the words of `IMPORT_FIELDS` and the
 * ids of the facts anybody recorded. What is not known is left blank, what is known to be unknown is `?`.
 */
export function formatEstateCsv(estate: Estate, catalogue: Catalogue): string {
  const facts = [...new Set(estate.systems.flatMap((s) => Object.keys(s.facts ?? {})))].sort();
  const products = new Map(catalogue.products.map((p) => [p.id, p]));
  const names = new Map(estate.systems.map((s) => [s.id, s.name]));
  const rows = estate.systems.map((s) => {
    const cells = cellsOf(s, new Names('is' in s.product ? products.get(s.product.is) : undefined), names);
    return [...FIELDS.map((f) => cells[f] ?? ''), ...facts.map((id) => formatFactText(s.facts?.[id]))];
  });
  return formatCsv([[...FIELDS, ...facts], ...rows]);
}

function cellsOf(
  s: System,
  names: Names,
  systems: ReadonlyMap<string, string>
): Partial<Record<ImportField, string>> {
  const linked = (kind: string): string =>
    (s.links ?? [])
      .flatMap((l) => (l.kind !== kind ? [] : 'to' in l ? [systems.get(l.to) ?? ''] : ['none']))
      .filter(Boolean)
      .join('; ');
  const known = 'is' in s.product;
  return {
    name: s.name,
    ...(known
      ? {
          product: names.product,
          version: 'is' in s.release ? names.release(s.release.is) : '',
          patch: 'is' in s.release && 'is' in s.patch ? names.patch(s.release.is, s.patch.is) : '',
          edition: 'is' in s.edition ? names.edition(s.edition.is) : '',
          architecture: 'is' in s.architecture ? names.architecture(s.architecture.is) : ''
        }
      : { installed: s.installedText ?? '' }),
    team: s.team ?? '',
    site: s.site ?? '',
    nodes: s.nodes === undefined ? '' : String(s.nodes),
    observed: s.observed ?? '',
    hostedOn: linked('hosted on'),
    managedBy: linked('managed by'),
    contentOf: linked('content of'),
    peerOf: linked('peer of'),
    companions: (s.companions ?? []).map((c) => c.name.replace(/[;|\n]+/g, ',')).join('; '),
    purl: s.purl ?? '',
    cpe: s.cpe ?? '',
    note: s.note ?? ''
  };
}
