import type { Product } from '../catalogue/schema';
import { ONLY } from '../catalogue/model';
import { BASE_PATCH } from '../version/sequence';
import type { Standing } from '../route/types';
import type { Target } from '../estate/schema';

/** The names of one product's things; an id stands in where the catalogue has no name or no longer the thing. */
export class Names {
  readonly #product: Product | undefined;

  constructor(product: Product | undefined) {
    this.#product = product;
  }

  get product(): string {
    return this.#product?.name ?? 'not in the catalogue';
  }

  release(id: string): string {
    return this.#product?.releases.find((r) => r.id === id)?.name ?? id;
  }

  patch(release: string, patch: string): string {
    if (patch === BASE_PATCH) return '';
    return (
      this.#product?.releases.find((r) => r.id === release)?.patches?.find((p) => p.id === patch)?.name ??
      patch
    );
  }

  /** Empty where the product comes in one edition only. */
  edition(id: string): string {
    if (id === ONLY && !this.#product?.editions) return '';
    return this.#product?.editions?.find((e) => e.id === id)?.name ?? id;
  }

  /** Empty where the product has one architecture only. */
  architecture(id: string): string {
    if ((this.#product?.architectures?.length ?? 0) < 2) return '';
    return this.#product?.architectures?.find((a) => a.id === id)?.name ?? id;
  }

  /** `4 r1` */
  level(standing: Pick<Standing, 'release' | 'patch'>): string {
    return [this.release(standing.release), this.patch(standing.release, standing.patch)]
      .filter(Boolean)
      .join(' ');
  }

  /** `6 Bureau` */
  target(target: Target): string {
    return [
      this.release(target.release),
      this.edition(target.edition),
      this.architecture(target.architecture)
    ]
      .filter(Boolean)
      .join(' ');
  }

  /** `the hop to 31.5 closes: media withdrawn` */
  closing(id: string): string {
    const because = this.#product?.hops?.find((h) => h.id === id)?.closesBecause;
    return `${this.hop(id)} closes${because ? `: ${because}` : ''}`;
  }

  /** `the hop to 31.5` */
  hop(id: string): string {
    const hop = this.#product?.hops?.find((h) => h.id === id);
    return hop ? `the hop to ${this.release(hop.to)}` : 'the change of edition';
  }

  /** `the hop from 4 to 5`, `the hop up to 3 to 5`: as its starts are written. */
  hopWithStart(id: string): string {
    const hop = this.#product?.hops?.find((h) => h.id === id);
    if (!hop) return id;
    const known = this.#product?.releases.some((r) => r.id === hop.from) ?? false;
    return `the hop ${known ? `from ${this.release(hop.from)}` : hop.from} to ${this.release(hop.to)}`;
  }

  /** What a cure does, in the catalogue's words. */
  cure(id: string): string {
    const cures = this.#product?.requirements?.flatMap((r) => r.cures ?? []);
    return cures?.find((c) => c.id === id)?.how.replace(/\.$/, '') ?? id;
  }

  requirement(id: string): string {
    return this.#product?.requirements?.find((r) => r.id === id)?.name ?? id;
  }

  /** A requirement by its name, or by what it needs where it has none: the site's own where that is asked for. */
  demand(id: string, isSite = false): string {
    const found = this.#product?.requirements?.find((r) => r.id === id);
    const needs = isSite ? found?.site?.needs : found?.needs;
    return found?.name ?? (needs === 'unknown' ? 'a figure nobody has stated' : (needs ?? id));
  }

  /** Where a hop or a change of edition leads: `4`, `a fresh install of 5`, `Bureau`. */
  step(id: string): string {
    const hop = this.#product?.hops?.find((h) => h.id === id);
    if (hop) return `${hop.kind === 'fresh install' ? 'a fresh install of ' : ''}${this.release(hop.to)}`;
    const change = this.#product?.editionChanges?.find((c) => c.id === id);
    return change ? this.edition(change.to) : id;
  }

  /** A fact a cure mends. */
  factOfCure(id: string): string | undefined {
    return this.#product?.requirements?.flatMap((r) => r.cures ?? []).find((c) => c.id === id)?.fact;
  }

  pairing(id: string): string {
    return this.#product?.pairings?.find((p) => p.id === id)?.kind ?? id;
  }

  caution(id: string): string {
    return this.#product?.cautions?.find((c) => c.id === id)?.name ?? id;
  }

  workAround(id: string): string {
    const how = this.#product?.cautions?.find((c) => c.id === id)?.workAround?.how;
    return how?.replace(/\.$/, '') ?? id;
  }

  companion(id: string): string {
    return this.#product?.companions?.find((c) => c.id === id)?.name ?? id;
  }

  right(id: string): string {
    return this.#product?.rights?.find((r) => r.id === id)?.name ?? id;
  }
}
