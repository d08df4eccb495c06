import type { Attachment } from 'svelte/attachments';

const LOOK_EACH_MS = 300;

/** Frames the first thing on the page that a selector finds, as soon as it is there and for as long as what it is attached to. */
export const frame =
  (selector: string): Attachment =>
  () => {
    let framed: Element | null = null;
    const look = (): void => {
      const found = document.querySelector(selector);
      if (found === framed) return;
      framed?.classList.remove('framed');
      found?.classList.add('framed');
      found?.scrollIntoView({ block: 'nearest' });
      framed = found;
    };
    look();
    const timer = setInterval(look, LOOK_EACH_MS);
    return () => {
      clearInterval(timer);
      framed?.classList.remove('framed');
    };
  };
