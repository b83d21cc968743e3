import { parse } from 'tldts';

/** A domain under which a company's forms are to be reached, read; or why it cannot be one. */
export type ReadDomain = { host: string } | { problem: string };

/**
 * Reads the name of a domain as people type it: with a scheme, a path or capitals. It is answered in ASCII (RFC 5890), as
 * browsers name it in `Host`. What no company owns is refused: an IP address, a single word, a public suffix.
 */
export function readDomain(text: string): ReadDomain {
  const typed = text.trim();
  let host: string;
  try {
    host = new URL(/^[a-z]+:\/\//i.test(typed) ? typed : `http://${typed}`).hostname.replace(/\.$/, '');
  } catch {
    return { problem: `“${typed.slice(0, 100)}” is no domain. Give one such as forms.example.com.` };
  }
  const { domain, isIp, hostname } = parse(host, { validateHostname: true });
  if (isIp) return { problem: 'An IP address belongs to no company. Give a domain such as forms.example.com.' };
  if (!hostname || host.length > 253)
    return { problem: `“${host.slice(0, 100)}” is no domain. Give one such as forms.example.com.` };
  if (!domain) return { problem: `${host} is too short to be anybody’s own. Give a domain such as forms.example.com.` };
  return { host };
}

/** The TXT record by which whoever manages a domain shows that it is theirs. */
export function proofRecord(host: string, proof: string): { name: string; text: string } {
  return { name: `_haycart.${host}`, text: `haycart-proof=${proof}` };
}

/** Where a request to an own domain leads inside this server; `null`: nowhere, since it has forms and nothing else. */
export function pathOnOwnDomain(address: string): string | null {
  const [path = '', query] = address.split(/\?(.*)/s);
  const asked = query === undefined ? '' : `?${query}`;
  if (/^\/(f|forms|embed|in)\/[^/]/.test(path)) return address;
  const slug = /^\/([a-z0-9][a-z0-9_-]*)\/?$/i.exec(path)?.[1];
  return slug ? `/f/${slug}${asked}` : null;
}
