import { parentPort } from 'node:worker_threads';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import { serveHelper } from '../threads/serve-helper';

if (parentPort) serveHelper(nodeEndpoint(parentPort));
