import { chooseValue, type Conflict, type MergedEstate, mergeEstates, type Workspace } from '$core/estate';
import type { Catalogue } from '$core/catalogue';
import { describeIssue, sayCount } from '$core/wording';
import { desk } from './desk.svelte';
import { replaceEstate } from './acts';

/** Which catalogue the joined workspace has. */
type CatalogueChoice = 'mine' | 'theirs' | 'joined';

/** Another person's workspace on its way into this one; nothing is changed before `finish`. */
class Joining {
  fileName = $state('');
  theirs = $state.raw<Workspace | undefined>();
  merged = $state.raw<MergedEstate | undefined>();
  /** Per conflict which of its two values is chosen. */
  chosen = $state<Record<string, 0 | 1>>({});
  catalogue = $state<CatalogueChoice>('mine');
  fault = $state('');

  readonly catalogueDiffers = $derived(
    this.theirs !== undefined && this.theirs.catalogue.text !== desk.catalogueText.text
  );

  begin(fileName: string, theirs: Workspace): void {
    this.fileName = fileName;
    this.theirs = theirs;
    this.chosen = {};
    this.fault = '';
    const { format: _format, version: _version, catalogue, ...estate } = theirs;
    void [_format, _version];
    this.merged = mergeEstates(desk.estate, estate);
    this.catalogue = desk.catalogueText.text === '' ? 'theirs' : catalogue.text === '' ? 'mine' : 'joined';
  }

  choose(conflict: Conflict, which: 0 | 1): void {
    this.chosen = { ...this.chosen, [keyOf(conflict)]: which };
  }

  chosenOf = (conflict: Conflict): 0 | 1 => this.chosen[keyOf(conflict)] ?? 0;

  /** Puts the joined workspace in the place of the one here, as one change. */
  async finish(): Promise<void> {
    const { merged, theirs } = this;
    if (!merged || !theirs) return;
    const estate = merged.conflicts.reduce(
      (e, c) => (this.chosenOf(c) === 1 ? chooseValue(e, c, c.values[1]) : e),
      merged.estate
    );
    const catalogue = await this.#catalogueText(theirs);
    if (!catalogue) return;
    await replaceEstate(
      `Joined with ${this.fileName}, ${sayCount(merged.conflicts.length, 'conflict')} settled`,
      estate,
      catalogue
    );
    this.stop();
  }

  async #catalogueText(theirs: Workspace): Promise<Workspace['catalogue'] | undefined> {
    if (!this.catalogueDiffers || this.catalogue === 'mine') return desk.catalogueText;
    if (this.catalogue === 'theirs') return theirs.catalogue;
    const { text, fileName } = desk.catalogueText;
    const joined = await desk.files.call(async (w) => {
      const received = await w.readCatalogue(theirs.catalogue.text);
      return received.ok ? w.mergeCatalogue(text, received.value as Catalogue) : received;
    });
    if (joined.ok && 'text' in joined.value) return { fileName, text: joined.value.text };
    this.fault = joined.ok ? '' : joined.issues.map(describeIssue).join(' ');
    return undefined;
  }

  stop(): void {
    this.theirs = undefined;
    this.merged = undefined;
  }
}

const keyOf = (c: Conflict): string => `${c.key} ${c.field}`;

export const joining = new Joining();
