/**
 * For landing pages: remembers the campaign parameters that first brought the visitor to this site, in the site's own
 * storage, and hands them to Hay Cart's forms: in links to them, and with forms that post to it.
 */
const KEEP_AS = 'haycart.visit';
const CAMPAIGN = ['utm_source', 'utm_medium', 'utm_campaign', 'utm_term', 'utm_content'];
const haycart = new URL((document.currentScript as HTMLScriptElement).src).origin;

type Visit = Record<string, string>;

function firstVisit(): Visit {
  try {
    const kept = localStorage.getItem(KEEP_AS);
    if (kept) return JSON.parse(kept) as Visit;
  } catch {
    // Without storage the visit is that of this page alone.
  }
  const visit: Visit = {};
  const query = new URLSearchParams(location.search);
  for (const name of CAMPAIGN) {
    const value = query.get(name);
    if (value) visit[name] = value;
  }
  if (document.referrer && new URL(document.referrer).origin !== location.origin) visit.referrer = document.referrer;
  try {
    if (Object.keys(visit).length) localStorage.setItem(KEEP_AS, JSON.stringify(visit));
  } catch {
    // See above.
  }
  return visit;
}

function handOver(): void {
  const visit: Visit = { ...firstVisit(), page: location.origin + location.pathname };
  for (const link of document.querySelectorAll<HTMLAnchorElement>(`a[href^="${haycart}/f/"]`)) {
    const address = new URL(link.href);
    for (const [name, value] of Object.entries(visit)) address.searchParams.set(name, value);
    link.href = address.href;
  }
  for (const form of document.querySelectorAll<HTMLFormElement>(`form[action^="${haycart}/in/"]`)) {
    const input = document.createElement('input');
    Object.assign(input, { type: 'hidden', name: '_visit', value: JSON.stringify(visit) });
    form.append(input);
  }
}

if (document.readyState === 'loading') document.addEventListener('DOMContentLoaded', handOver);
else handOver();
export {};
