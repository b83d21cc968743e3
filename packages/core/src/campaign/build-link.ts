import { CAMPAIGN_PARAMETERS } from '../source/visit';
import type { LinkParameters } from './campaign';
import { LINK_LIMITS } from './link-rules';

/** A page with the parameters of a campaign, whatever it said of them before; a sentence where it is no web address. */
export function buildLink(
  page: string,
  link: LinkParameters,
): { ok: true; address: string } | { ok: false; text: string } {
  const address = webAddress(page);
  if (!address)
    return { ok: false, text: `“${page.slice(0, 100)}” is no web address such as https://quillfern.example/prices.` };
  for (const parameter of CAMPAIGN_PARAMETERS) {
    address.searchParams.delete(parameter);
    const text = link[parameter]?.trim();
    if (text) address.searchParams.set(parameter, text);
  }
  if (address.href.length > LINK_LIMITS.address)
    return { ok: false, text: `A link has at most ${LINK_LIMITS.address.toLocaleString('en-GB')} characters.` };
  return { ok: true, address: address.href };
}

/** People leave out the scheme. */
function webAddress(page: string): URL | null {
  const text = page.trim();
  const whole = /^https?:\/\//i.test(text) ? text : `https://${text}`;
  if (!URL.canParse(whole)) return null;
  const address = new URL(whole);
  return address.hostname.includes('.') || address.hostname === 'localhost' ? address : null;
}
