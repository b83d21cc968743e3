import { createServer } from 'node:http';
import { simpleParser } from 'mailparser';
import { createTransport } from 'nodemailer';
import { SMTPServer } from 'smtp-server';

/** The most that is kept. */
const MOST = 2_000;
const LONGEST = 30 * 1024 * 1024;
/** How often it is tried to send a mail back, and how long it rests before each, in milliseconds. */
const MOST_RETURNS = 10;
const RETURN_PAUSE_MS = 500;
const AS_USUAL = { status: 250, delayMs: 0, times: 0, loseAnswer: false };

/**
 * A stand-in for a mail server: real SMTP (RFC 5321) in the clear, taking whatever comes for `.example` addresses, and a
 * page of it. `PUT /behaviour` has it answer otherwise: `{status: 451, delayMs, times, loseAnswer}`. A mail to `nobody@` is
 * taken, and comes back to the port `returnsTo` on this machine (RFC 3464).
 */
export function mailServer(returnsTo) {
  let received = [];
  let behaviour = { ...AS_USUAL };

  const smtp = new SMTPServer({
    authOptional: true,
    hideSTARTTLS: true,
    disableReverseLookup: true,
    size: LONGEST,
    onAuth: ({ username, password }, _, done) =>
      password === 'wrong' ? done(new Error('Invalid user name or password')) : done(null, { user: username }),
    onData(stream, session, done) {
      // It is another one once the answer is given.
      const { envelope } = session;
      take(stream, session).then(
        (taken) => {
          done();
          if (taken && returnsTo) sendBack(envelope, returnsTo);
        },
        (cause) => done(cause),
      );
    },
  });
  // Whoever goes away in the middle of a mail ends their connection, and not the server.
  smtp.on('error', () => {});

  async function take(stream, session) {
    const mail = await simpleParser(stream);
    const { status, delayMs, loseAnswer } = nextBehaviour();
    if (status < 300)
      received = [
        ...received,
        {
          number: (received.at(-1)?.number ?? 0) + 1,
          at: new Date().toISOString(),
          from: mail.from?.text ?? '',
          returnsTo: session.envelope.mailFrom.address ?? '',
          to: session.envelope.rcptTo.map(({ address }) => address),
          subject: mail.subject ?? '',
          messageId: mail.messageId ?? '',
          headers: Object.fromEntries(
            mail.headerLines.map(({ key, line }) => [key, line.slice(key.length + 1).trim()]),
          ),
          text: mail.text ?? '',
          html: mail.html || null,
          attachments: mail.attachments.map(({ filename, contentType, size }) => ({ filename, contentType, size })),
        },
      ].slice(-MOST);
    if (delayMs) await new Promise((resolve) => setTimeout(resolve, delayMs));
    if (loseAnswer) {
      for (const connection of smtp.connections) connection.close();
      return;
    }
    if (status >= 300) throw Object.assign(new Error('As it was told to'), { responseCode: status });
    return true;
  }

  function nextBehaviour() {
    const now = behaviour;
    if (now.times > 0) behaviour = now.times === 1 ? { ...AS_USUAL } : { ...now, times: now.times - 1 };
    return now;
  }

  const page = createServer((request, response) => {
    const { pathname, searchParams } = new URL(request.url ?? '/', 'http://mail.example');
    const json = (status, value) =>
      response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(value));
    bodyOf(request).then(
      (body) => {
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
        response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(pageOf(received));
      },
      () => request.socket.destroy(),
    );
  });
  return { smtp, page };
}

async function sendBack({ mailFrom, rcptTo }, port) {
  const nobody = rcptTo.find(({ address }) => address.startsWith('nobody@'))?.address;
  if (!nobody) return;
  const status = [
    'Reporting-MTA: dns; mail.quillfern.example',
    '',
    `Final-Recipient: rfc822; ${nobody}`,
    'Action: failed',
    'Status: 5.1.1',
    `Diagnostic-Code: smtp; 550 5.1.1 <${nobody}>: there is no such mailbox`,
  ].join('\r\n');
  const report = [
    'From: Mail <postmaster@mail.quillfern.example>',
    `To: ${mailFrom.address}`,
    'Subject: Not delivered',
    'Content-Type: multipart/report; report-type=delivery-status; boundary=part',
    '',
    '--part',
    '',
    'Your mail could not be delivered.',
    '--part',
    'Content-Type: message/delivery-status',
    '',
    status,
    '--part--',
  ].join('\r\n');
  const transport = createTransport({ host: '127.0.0.1', port, ignoreTLS: true });
  for (let tries = 0; tries < MOST_RETURNS; tries += 1) {
    await new Promise((resolve) => setTimeout(resolve, RETURN_PAUSE_MS));
    const refused = await transport.sendMail({ envelope: { from: '', to: [mailFrom.address] }, raw: report }).then(
      () => null,
      (cause) => cause.responseCode ?? 0,
    );
    // As any mail server does: later again, unless it is refused for good.
    if (refused === null || refused >= 500) break;
  }
  transport.close();
}

async function bodyOf(request) {
  const chunks = [];
  let bytes = 0;
  for await (const chunk of request) {
    bytes += chunk.length;
    if (bytes > 64 * 1024) throw new Error('Too long.');
    chunks.push(chunk);
  }
  return Buffer.concat(chunks).toString('utf8');
}

function pageOf(received) {
  const rows = received.toReversed().map(
    ({ number, at, from, to, subject, text: says, html }) => `<article>
<h2>${number}. ${text(subject)}</h2>
<p>${text(at)} · from ${text(from)} to ${text(to.join(', '))}</p>
<pre>${text(says)}</pre>${html ? `<iframe sandbox title="As HTML" srcdoc="${text(html)}"></iframe>` : ''}</article>`,
  );
  return `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>Mail</title>
<style>body{font:16px/1.5 system-ui,sans-serif;margin:2rem auto;max-width:60rem;padding:0 1rem;color:#1b231a;background:#fbfcf8}
h1{font-size:1.5rem}h2{font-size:1rem;margin:0}article{border-top:1px solid #d0d7c5;padding:1rem 0}p{margin:.25rem 0;color:#57634f}
pre{background:#e9ede3;padding:.75rem;overflow:auto;max-height:24rem;white-space:pre-wrap}iframe{width:100%;height:16rem;border:1px solid #d0d7c5;background:#fff}</style>
<h1>Mail</h1>
<p>${received.length ? `${received.length} mails, the latest first.` : 'No mail has come yet.'}</p>
${rows.join('\n')}`;
}

function text(value) {
  return String(value).replace(/[&<>"]/g, (letter) => `&#${letter.charCodeAt(0)};`);
}
