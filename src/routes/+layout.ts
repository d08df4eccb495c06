/** Everything shown lives in the browser; the server has nothing to render. */
export const ssr = false;
