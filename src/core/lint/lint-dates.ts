import { PHASES } from '../date';
import type { Release } from '../catalogue';
import { isSurelyBefore, spanOfText, type LintContext } from './finding';

/** Days that contradict each other: ends before starts, phases and patches out of order. */
export function lintDates(context: LintContext): void {
  const { product, at } = context;
  product.releases.forEach((release, i) => {
    const line = product.lines?.findIndex((l) => l.id === release.line) ?? -1;
    const own = release.service;
    const service = own ?? product.lines?.[line]?.service ?? [];
    const place = own ? [...at, 'releases', i, 'service'] : [...at, 'lines', line, 'service'];
    const start = earliest(release);
    service.forEach((phase, j) => {
      if (isSurelyBefore(phase.until, start))
        add(context, 'ends-before-start', [...place, j, 'until'], {
          until: phase.until,
          start: start ?? '',
          release: release.id
        });
    });
    if (own) lintPhases(context, own, place);
    lintPatches(context, release, i);
  });
  product.lines?.forEach((line, i) =>
    lintPhases(context, line.service ?? [], [...at, 'lines', i, 'service'])
  );
  for (const list of ['hops', 'editionChanges'] as const)
    product[list]?.forEach((entry, i) => {
      if (isSurelyBefore(entry.closes, entry.opens))
        add(context, 'closes-before-opens', [...at, list, i, 'closes'], {
          closes: entry.closes ?? '',
          opens: entry.opens ?? '',
          entry: entry.id
        });
    });
  product.offers?.forEach((offer, i) => {
    const hops = product.hops?.filter((h) => offer.hops.includes(h.id)) ?? [];
    const release = product.releases.find(
      (r) => hops.some((h) => h.to === r.id) && isSurelyBefore(offer.begins, earliest(r))
    );
    if (release || isSurelyBefore(offer.complete, offer.begins))
      add(context, 'offer-before-release', [...at, 'offers', i, 'begins'], {
        begins: offer.begins,
        offer: offer.id
      });
  });
}

function lintPhases(
  context: LintContext,
  service: NonNullable<Release['service']>,
  place: readonly (string | number)[]
): void {
  service.forEach((phase, j) => {
    const earlier = service.find(
      (p) => PHASES.indexOf(p.phase) < PHASES.indexOf(phase.phase) && isSurelyBefore(phase.until, p.until)
    );
    if (earlier)
      add(context, 'phases-out-of-order', [...place, j, 'until'], {
        phase: phase.phase,
        until: phase.until,
        other: earlier.phase,
        otherUntil: earlier.until
      });
  });
}

function lintPatches(context: LintContext, release: Release, i: number): void {
  const patches = release.patches ?? [];
  const place = [...context.at, 'releases', i, 'patches'];
  patches.forEach((patch, j) => {
    const detail = { patch: `${release.id}/${patch.id}`, published: patch.published };
    if (isSurelyBefore(patch.published, earliest(release)))
      add(context, 'patch-before-release', [...place, j, 'published'], {
        ...detail,
        start: earliest(release) ?? ''
      });
    if (isSurelyBefore(patch.until, patch.published))
      add(context, 'patch-ends-before-start', [...place, j, 'until'], {
        ...detail,
        until: patch.until ?? ''
      });
  });
  const at = patches.findIndex((p, j) => j > 0 && isSurelyBefore(p.published, patches[j - 1]?.published));
  if (at < 0) return;
  const sorted = [...patches].sort(
    (a, b) => (spanOfText(a.published)?.first ?? 1e9) - (spanOfText(b.published)?.first ?? 1e9)
  );
  context.add({
    code: 'patches-out-of-order',
    kind: 'note',
    path: [...place, at],
    detail: { patch: `${release.id}/${patches[at]?.id}`, before: patches[at - 1]?.id ?? '' },
    mend: [{ kind: 'set', path: place, value: sorted }]
  });
}

/** The earliest day of any maturity a release is said to come out. */
function earliest(release: Release): string | undefined {
  const texts =
    typeof release.published === 'string' ? [release.published] : Object.values(release.published);
  return texts
    .filter((t) => spanOfText(t))
    .sort((a, b) => (spanOfText(a)?.first ?? 0) - (spanOfText(b)?.first ?? 0))[0];
}

function add(
  context: LintContext,
  code:
    | 'ends-before-start'
    | 'phases-out-of-order'
    | 'closes-before-opens'
    | 'patch-before-release'
    | 'patch-ends-before-start'
    | 'offer-before-release',
  path: readonly (string | number)[],
  detail: Readonly<Record<string, string>>
): void {
  context.add({ code, kind: 'fault', path, detail });
}
