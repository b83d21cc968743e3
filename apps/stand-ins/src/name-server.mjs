import { createSocket } from 'node:dgram';
import { createServer } from 'node:http';
import { decode, encode, AUTHORITATIVE_ANSWER } from 'dns-packet';

/**
 * A stand-in for the domain name system (RFC 1035), on the second port after Hay Cart's: over UDP it answers for the names
 * that were entered on its page, which is at the same port over HTTP. Every name leads to this machine.
 */
const host = process.env.HAYCART_HOST || '127.0.0.1';
const port = Number(process.env.HAYCART_PORT || 4600) + 2;
/** The texts (TXT records) by name. */
const texts = new Map();

const socket = createSocket('udp4');
socket.on('message', (bytes, { address, port: from }) => {
  const { id, questions = [] } = decode(bytes);
  const answers = questions.flatMap(({ name, type }) => {
    if (type === 'TXT') return (texts.get(name.toLowerCase()) ?? []).map((data) => ({ name, type, ttl: 0, data }));
    return type === 'A' ? [{ name, type, ttl: 0, data: '127.0.0.1' }] : [];
  });
  socket.send(encode({ type: 'response', id, flags: AUTHORITATIVE_ANSWER, questions, answers }), from, address);
});
socket.bind(port, host);

createServer(async (request, response) => {
  if (request.method === 'POST') {
    const given = new URLSearchParams(await bodyOf(request));
    const name = (given.get('name') ?? '').trim().toLowerCase();
    const text = (given.get('text') ?? '').trim();
    if (name && text) texts.set(name, [...new Set([...(texts.get(name) ?? []), text])]);
    else if (name) texts.delete(name);
    response.writeHead(303, { location: '/' }).end();
    return;
  }
  response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(page());
}).listen(port, host, () => process.stdout.write(`Names: http://${host}:${port}\n`));

async function bodyOf(request) {
  let body = '';
  for await (const chunk of request) body += chunk;
  return body;
}

function page() {
  const lines = [...texts]
    .flatMap(([name, all]) => all.map((text) => `<tr><td>${safe(name)}</td><td>TXT</td><td>${safe(text)}</td></tr>`))
    .join('');
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>Domain names</title>
<style>body{font:16px/1.5 sans-serif;max-width:52rem;margin:3rem auto;padding:0 1rem}input{display:block;width:100%;font:inherit;padding:.3rem;margin-bottom:1rem;box-sizing:border-box}td,th{text-align:left;padding:.3rem 1rem .3rem 0}</style>
<h1>Domain names</h1><p>What whoever manages Quillfern’s domains would enter. Every name leads to this machine.</p>
<table><tr><th>Name</th><th>Type</th><th>Text</th></tr>${lines}</table>
<h2>Enter a TXT record</h2><form method="post"><label>Name <input name="name" required></label><label>Text <input name="text"></label><button>Enter it</button></form></html>`;
}

function safe(text) {
  return text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);
}
