import { parentPort } from 'node:worker_threads';
import { LookThrough, type FromScan, type ToScan } from './look-through';

/** Compares records beside the server’s own work: everything it knows comes in messages, and it answers each. */
const through = new LookThrough();
parentPort!.on('message', (message: ToScan) => {
  const answer: FromScan = through.answer(message);
  parentPort!.postMessage(answer);
});
