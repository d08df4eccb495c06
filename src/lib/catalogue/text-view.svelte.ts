import { draft } from '$lib/state/draft.svelte';
import type { TextEditor } from './text-editor';

const AFTER_TYPING_MS = 200;

/** The editor of the catalogue's text: drawn by its own library, loaded only here; its text, marks and place follow ours. */
export class TextView {
  #editor = $state.raw<TextEditor | undefined>();
  readonly isOpen = $derived(this.#editor !== undefined);
  readonly #line: () => number;

  /** @param line the line to go to, from 1; 0: none */
  constructor(line: () => number) {
    this.#line = line;
  }

  readonly attach = (host: HTMLElement): (() => void) => {
    let gone = false;
    void this.#open(host).then((editor) => {
      if (gone) editor.destroy();
      else this.#editor = editor;
    });
    $effect(() => this.#editor?.setText(draft.shownText));
    $effect(() => this.#editor?.setIssues(draft.issues));
    $effect(() => {
      if (this.#line() > 0) this.#editor?.goToLine(this.#line());
    });
    return () => {
      gone = true;
      this.#editor?.destroy();
      this.#editor = undefined;
    };
  };

  async #open(host: HTMLElement): Promise<TextEditor> {
    const { openTextEditor } = await import('./text-editor');
    let typing: ReturnType<typeof setTimeout> | undefined;
    return openTextEditor(host, {
      text: draft.shownText,
      ontext: (text) => {
        clearTimeout(typing);
        typing = setTimeout(() => void draft.setText(text), AFTER_TYPING_MS);
      },
      complete: (text, offset) => draft.complete(text, offset)
    });
  }
}
