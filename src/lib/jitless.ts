import { config } from 'zod';

/*
 * Pages and workers may not make code out of text (Content-Security-Policy), and asking whether they may is a violation already.
 * Imported before any schema is made.
 */
config({ jitless: true });
