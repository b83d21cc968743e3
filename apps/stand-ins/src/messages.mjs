import { receiver } from './receiver.mjs';

/** The stand-in for chats (`/chat/…`) and for what sends text messages (`/texts`), on the fifth port after Hay Cart's. */
const host = process.env.HAYCART_HOST || '127.0.0.1';
const port = Number(process.env.HAYCART_PORT || 4600) + 5;

const parsed = (body) => {
  try {
    return JSON.parse(body);
  } catch {
    return {};
  }
};

const server = receiver({
  title: 'Chat and text messages',
  one: 'message',
  many: 'messages',
  signs: false,
  heading: ({ path, body }) =>
    path.startsWith('/texts') ? `Text message to ${parsed(body).to}` : `Chat ${path.replace('/chat/', '')}`,
  says: (body) => String(parsed(body).text ?? body),
}).listen(port, host, () => process.stdout.write(`Listening on http://${host}:${server.address().port}\n`));
