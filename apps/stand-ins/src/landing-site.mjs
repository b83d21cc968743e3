import { createReadStream, statSync } from 'node:fs';
import { createServer } from 'node:http';
import { join, normalize } from 'node:path';
import { fileURLToPath } from 'node:url';

/**
 * A stand-in for the firms' own web sites: small static pages on the port after Hay Cart's, so that everything crosses
 * origins as it does in real life. `{{haycart}}` in a page becomes Hay Cart's address.
 */
const host = process.env.HAYCART_HOST || '127.0.0.1';
const port = Number(process.env.HAYCART_PORT || 4600);
const haycart = `http://${host}:${port}`;
const folder = join(fileURLToPath(new URL('.', import.meta.url)), 'pages');

createServer((request, response) => {
  const path = normalize((request.url ?? '/').split('?')[0]).replace(/\/$/, '') || '/index';
  const file = join(folder, path.endsWith('.css') ? path : `${path}.html`);
  if (!file.startsWith(folder) || !isFile(file)) {
    response.writeHead(404, { 'content-type': 'text/plain' }).end('There is no such page.');
    return;
  }
  response.writeHead(200, { 'content-type': file.endsWith('.css') ? 'text/css' : 'text/html; charset=utf-8' });
  createReadStream(file, 'utf8')
    .map((chunk) => String(chunk).replaceAll('{{haycart}}', haycart))
    .pipe(response);
}).listen(port + 1, host);

function isFile(path) {
  try {
    return statSync(path).isFile();
  } catch {
    return false;
  }
}
