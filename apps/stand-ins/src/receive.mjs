import { receiver } from './receiver.mjs';

/** The stand-in for any program that is posted to, on the ninth port after Hay Cart's or on one of its own. */
const host = process.env.HAYCART_HOST || '127.0.0.1';
const port = process.env.HAYCART_RECEIVER_PORT ?? Number(process.env.HAYCART_PORT || 4600) + 9;

const server = receiver().listen(Number(port), host, () =>
  process.stdout.write(`Listening on http://${host}:${server.address().port}\n`),
);
