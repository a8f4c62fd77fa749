import { parentPort } from 'node:worker_threads';
import { servePrograms, type ToSide } from '../../src/core/part/threads/side-threads';

const hear = servePrograms((message, memory) => parentPort!.postMessage(message, memory));
parentPort!.on('message', (message: ToSide) => hear(message));
