import { settings } from '$lib/state/settings.svelte';

/** Whether somebody is writing: the element itself, also where it stands in the shadow root of the text editor. */
export function isTyping(event: Event): boolean {
  const [target] = event.composedPath();
  return target instanceof HTMLElement && target.matches('input, textarea, select, [contenteditable]');
}

/** A key without a modifier: off while somebody writes or answers a dialog, and where such keys are switched off. */
export const single =
  (act: () => void) =>
  (event: KeyboardEvent): void => {
    if (!settings.singleKeys || isTyping(event) || document.querySelector('dialog[open]')) return;
    event.preventDefault();
    act();
  };
