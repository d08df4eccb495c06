import type { Handle } from '@sveltejs/kit';

/**
 * Beside the pages' Content-Security-Policy: no guessing of types, no telling where one came from, no sharing of windows. Files as
 * they lie there get the same from `scripts/serve.mjs`.
 */
export const handle: Handle = async ({ event, resolve }) => {
  const response = await resolve(event);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'no-referrer');
  response.headers.set('cross-origin-opener-policy', 'same-origin');
  return response;
};
