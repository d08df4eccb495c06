// Serves the built application. Every answer carries the headers of ARCHITECTURE.md, files as they lie there included;
// who is slow with a request is let go; a signal to end ends it in seconds, whatever is being planned.
import { createServer } from 'node:http';
import { fileURLToPath } from 'node:url';

process.env.BODY_SIZE_LIMIT ??= '33M';
const { handler } = await import(new URL('../build/handler.js', import.meta.url));

const HEADERS = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'no-referrer',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin'
};
const HEADERS_MS = 10_000;
const REQUEST_MS = 120_000;
const END_MS = 2_000;

/** A server on a host and port; `close` ends it. */
export function serve(host, port) {
  const server = createServer((request, response) => {
    for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
    handler(request, response, () => {
      response.statusCode = 404;
      response.end();
    });
  });
  server.headersTimeout = HEADERS_MS;
  server.requestTimeout = REQUEST_MS;
  server.listen(port, host);
  return server;
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const server = serve(process.env.HOST ?? '127.0.0.1', Number(process.env.PORT ?? 4180));
  server.on('error', (error) => {
    console.error(error.message);
    process.exit(1);
  });
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.on(signal, () => {
      server.close(() => process.exit(0));
      server.closeIdleConnections();
      setTimeout(() => process.exit(0), END_MS).unref();
    });
}
