/** A thread that plans along, until it is ended; see `together`. */
import { parentPort } from 'node:worker_threads';
import { Helping, type Share } from '../src/lib/workers/helpers';

const helping = new Helping();
parentPort?.on('message', (share: Share) => parentPort?.postMessage(helping.planShare(share)));
