import { SaxesParser } from 'saxes';

export type XmlEvent = { open: string; attributes: Record<string, string> } | { close: string } | { text: string };

/** The events of an XML document that comes in pieces: names are without their prefixes. Nothing outside it is read. */
export async function* xmlEvents(pieces: AsyncIterable<string>): AsyncGenerator<XmlEvent[]> {
  let events: XmlEvent[] = [];
  const parser = new SaxesParser();
  parser.on('opentag', ({ name, attributes }) =>
    events.push({ open: local(name), attributes: attributes as Record<string, string> }),
  );
  parser.on('closetag', ({ name }) => events.push({ close: local(name) }));
  parser.on('text', (text) => events.push({ text }));
  parser.on('cdata', (text) => events.push({ text }));
  parser.on('error', (cause) => {
    throw cause;
  });
  for await (const piece of pieces) {
    parser.write(piece);
    yield events;
    events = [];
  }
  parser.close();
  yield events;
}

function local(name: string): string {
  return name.slice(name.indexOf(':') + 1);
}
