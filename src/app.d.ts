import type { IncomingMessage } from 'node:http';

declare global {
  namespace App {
    interface Error {
      message: string;
    }
    /** What the server hands a route of its own; none while developing. */
    interface Platform {
      req: IncomingMessage;
    }
  }
}

export {};
