import type { Product } from './schema';
import type { EditionChange, Hop } from './schema-hop';
import { BASE_PATCH, ONLY, type Standing } from '../version';

/** Whether a release has patch levels to be told apart; whether any has, where the release is not known. */
export const hasLevels = (product: Product, release?: string): boolean =>
  product.releases.some((r) => (release === undefined || r.id === release) && (r.patches ?? []).length > 0);

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

  /** A range of releases, as written in a catalogue, by their names: `5 d1 or later`. */
  range(text: string): string {
    return text
      .replace(/[^\s,]+/g, (word) => this.#level(word))
      .replace(/\bfrom ([^,]+)/g, '$1 or later')
      .replace(/\bup to ([^,]+)/g, '$1 or earlier');
  }

  #level(word: string): string {
    const [release = '', patch] = word.split('/');
    if (!this.isRelease(release)) return word;
    return patch === undefined ? this.release(release) : this.level({ release, patch });
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
  target(target: Omit<Standing, 'patch'>): string {
    return [
      this.release(target.release),
      this.edition(target.edition),
      this.architecture(target.architecture)
    ]
      .filter(Boolean)
      .join(' ');
  }

  hopOf(id: string): Hop | undefined {
    return this.#product?.hops?.find((h) => h.id === id);
  }

  editionChangeOf(id: string): EditionChange | undefined {
    return this.#product?.editionChanges?.find((c) => c.id === id);
  }

  isRelease(id: string): boolean {
    return this.#product?.releases.some((r) => r.id === id) ?? false;
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
    return found?.name ?? needs ?? id;
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
