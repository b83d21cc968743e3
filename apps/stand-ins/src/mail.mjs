import { mailServer } from './mail-server.mjs';

/** The stand-in for a mail server: its page on the third port after Hay Cart's, SMTP on the fourth, or on ports of one's own. */
const host = process.env.HAYCART_HOST || '127.0.0.1';
const port = Number(process.env.HAYCART_MAIL_PORT ?? Number(process.env.HAYCART_PORT || 4600) + 3);
const { smtp, page } = mailServer(Number(process.env.HAYCART_RETURN_PORT) || null);
page.listen(port, host, () => {
  const listening = smtp.listen(port === 0 ? 0 : port + 1, host, () =>
    process.stdout.write(`Listening on http://${host}:${page.address().port} smtp ${listening.address().port}\n`),
  );
});
