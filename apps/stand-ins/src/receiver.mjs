import { createServer } from 'node:http';
import { Webhook } from 'standardwebhooks';

/** The most that is kept, and the longest body. */
const MOST = 1_000;
const LONGEST = 1024 * 1024;
const AS_USUAL = { status: 200, delayMs: 0, times: 0, loseAnswer: false };

/** A page that lists whatever was posted. */
const PLAIN = {
  title: 'What was received',
  one: 'post',
  many: 'posts',
  signs: true,
  heading: ({ path }) => path,
  says: pretty,
};

/**
 * A stand-in for any program that is posted to. What comes is kept as it came, and listed for scripts at `/received` and for
 * people at `/`; `PUT /behaviour` has it answer otherwise for a while: `{status, delayMs, times, loseAnswer}`.
 */
export function receiver(shown = PLAIN) {
  let received = [];
  let behaviour = { ...AS_USUAL };
  let secret = null;

  return createServer((request, response) => {
    const { pathname, searchParams } = new URL(request.url ?? '/', 'http://receiver.example');
    const json = (status, value) =>
      response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(value));
    bodyOf(request).then(
      async (body) => {
        if (request.method === 'GET' && pathname === '/received')
          return json(
            200,
            received.filter(({ number }) => number > Number(searchParams.get('after') ?? 0)),
          );
        if (request.method === 'DELETE' && pathname === '/received') {
          received = [];
          return json(200, []);
        }
        if (request.method === 'PUT' && pathname === '/behaviour') {
          behaviour = { ...AS_USUAL, ...JSON.parse(body || '{}') };
          return json(200, behaviour);
        }
        if (request.method === 'PUT' && pathname === '/secret') {
          secret = JSON.parse(body).secret ?? null;
          return json(200, {});
        }
        if (request.method === 'GET')
          return response
            .writeHead(200, { 'content-type': 'text/html; charset=utf-8' })
            .end(page(shown, received, secret !== null));
        const { status, delayMs, loseAnswer } = nextBehaviour();
        received = [...received, { ...came(request, body), status, signed: isSigned(request, body) }].slice(-MOST);
        if (delayMs) await new Promise((resolve) => setTimeout(resolve, delayMs));
        if (loseAnswer) return request.socket.destroy();
        json(status, { received: received.at(-1).number });
      },
      () => request.socket.destroy(),
    );
  });

  function nextBehaviour() {
    const now = behaviour;
    if (now.times > 0) behaviour = now.times === 1 ? { ...AS_USUAL } : { ...now, times: now.times - 1 };
    return now;
  }

  function came({ method, url, headers }, body) {
    const number = (received.at(-1)?.number ?? 0) + 1;
    return { number, at: new Date().toISOString(), method, path: url, headers, body };
  }

  /** Whether the signature fits; `null` without a secret to check it by. */
  function isSigned({ headers }, body) {
    if (secret === null) return null;
    try {
      new Webhook(secret).verify(body, headers);
      return true;
    } catch {
      return false;
    }
  }
}

async function bodyOf(request) {
  const chunks = [];
  let bytes = 0;
  for await (const chunk of request) {
    bytes += chunk.length;
    if (bytes > LONGEST) throw new Error('Too long.');
    chunks.push(chunk);
  }
  return Buffer.concat(chunks).toString('utf8');
}

function page({ title, one, many, signs, heading, says }, received, checks) {
  const rows = received.toReversed().map(
    ({ number, at, path, status, signed, headers, body }) => `<article>
<h2>${number}. ${text(heading({ path, body }))}</h2>
<p>${text(at)} · answered ${status} · ${text(headers['webhook-id'] ?? headers['idempotency-key'] ?? 'no key')}${signed === null ? '' : signed ? ' · the signature fits' : ' · the signature does not fit'}</p>
<pre>${text(says(body))}</pre></article>`,
  );
  return `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>${text(title)}</title>
<style>body{font:16px/1.5 system-ui,sans-serif;margin:2rem auto;max-width:60rem;padding:0 1rem;color:#1b231a;background:#fbfcf8}
h1{font-size:1.5rem}h2{font-size:1rem;margin:0}article{border-top:1px solid #d0d7c5;padding:1rem 0}p{margin:.25rem 0;color:#57634f}
pre{background:#e9ede3;padding:.75rem;overflow:auto;max-height:24rem;white-space:pre-wrap}</style>
<h1>${text(title)}</h1>
<p>${received.length ? `${received.length} ${received.length === 1 ? one : many}, the latest first.` : 'Nothing has come yet.'}${checks || !signs ? '' : ' Signatures are not checked: there is no secret to check them by.'}</p>
${rows.join('\n')}`;
}

function pretty(body) {
  try {
    return JSON.stringify(JSON.parse(body), null, 2);
  } catch {
    return body;
  }
}

function text(value) {
  return String(value).replace(/[&<>"]/g, (letter) => `&#${letter.charCodeAt(0)};`);
}
