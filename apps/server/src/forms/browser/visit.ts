/**
 * For landing pages: keeps how a visitor came by, in the site's own storage and nowhere else, and hands that to Hay Cart's
 * forms: in links to them, and with forms that post to it. Visits are kept until the browser window is closed. Where the
 * visitor agreed to more, `data-keep="always"` on the script's tag, or the event `haycart:keep` on the document, keeps them
 * for longer; `haycart:forget` forgets them all.
 */
const KEEP_AS = 'haycart.visits';
const CAMPAIGN = ['utm_source', 'utm_medium', 'utm_campaign', 'utm_term', 'utm_content'];
const CLICK = /^[a-z_]{0,20}(?:clid|clickid|click_id)$/i;
/** The first, and the latest. */
const MOST = 12;
/** As much as a link can carry. */
const LONGEST = 4_000;
/** Whoever looks at the same page again within minutes is the same visit. */
const SAME_MS = 30 * 60_000;

interface Visit {
  id: string;
  at: string;
  [part: string]: string;
}

const script = document.currentScript as HTMLScriptElement;
const haycart = new URL(script.src).origin;
let always = script.dataset.keep === 'always';

function kept(): Visit[] {
  for (const storage of storages()) {
    try {
      const visits = JSON.parse(storage.getItem(KEEP_AS) ?? '[]') as Visit[];
      if (Array.isArray(visits) && visits.length) return visits;
    } catch {
      // The stored text is not a list of visits.
    }
  }
  return [];
}

function keep(visits: readonly Visit[]): void {
  try {
    (always ? localStorage : sessionStorage).setItem(KEEP_AS, JSON.stringify(visits));
  } catch {
    // Without storage the visit is that of this page alone.
  }
}

/** The storages that the browser allows; the longer-lived one first. */
function storages(): Storage[] {
  try {
    return [localStorage, sessionStorage];
  } catch {
    return [];
  }
}

/** The visit that brought the visitor to this page; null when they came from within the site. */
function thisVisit(): Visit | null {
  const visit: Visit = { id: newId(), at: new Date().toISOString(), page: location.origin + location.pathname };
  const query = new URLSearchParams(location.search);
  for (const name of CAMPAIGN) {
    const value = query.get(name);
    if (value) visit[name] = value.slice(0, 200);
  }
  for (const [name, value] of query) {
    if (CLICK.test(name)) Object.assign(visit, { click: name, clickId: value.slice(0, 200) });
  }
  if (document.referrer && new URL(document.referrer).origin !== location.origin)
    visit.referrer = document.referrer.slice(0, 500);
  return Object.keys(visit).length > 3 ? visit : null;
}

/** All visits up to now, the earliest first. */
function visits(): Visit[] {
  const before = kept();
  const now = thisVisit();
  const last = before[before.length - 1];
  if (!now || (last && isSame(now, last))) return before;
  const all = [...before, now];
  return all.length > MOST ? [all[0]!, ...all.slice(1 - MOST)] : all;
}

function isSame(now: Visit, last: Visit): boolean {
  const parts = (visit: Visit) => JSON.stringify(Object.entries({ ...visit, id: '', at: '' }).sort());
  return Date.parse(now.at) - Date.parse(last.at) < SAME_MS && parts(now) === parts(last);
}

function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20)}`;
}

function handOver(): void {
  const all = visits();
  keep(all);
  const { id: _, at: __, ...last } = all[all.length - 1] ?? { id: '', at: '' };
  const page = location.origin + location.pathname;
  const visit: Record<string, string> = { ...last, page };
  if (last.page && last.page !== page) visit.landing = last.page;
  const earlier = all.slice(0, -1);
  for (const link of document.querySelectorAll<HTMLAnchorElement>(`a[href^="${haycart}/f/"]`)) {
    const address = new URL(link.href);
    const { click, clickId, ...parts } = visit;
    for (const [name, value] of Object.entries({ ...parts, ...(click && clickId ? { [click]: clickId } : {}) }))
      address.searchParams.set(name, value);
    const before = JSON.stringify(earlier.slice(0, 1).concat(earlier.slice(1).slice(-4)));
    if (earlier.length && before.length < LONGEST) address.searchParams.set('earlier', before);
    link.href = address.href;
  }
  for (const form of document.querySelectorAll<HTMLFormElement>(`form[action^="${haycart}/in/"]`)) {
    const input = document.createElement('input');
    Object.assign(input, { type: 'hidden', name: '_visit', value: JSON.stringify({ ...visit, earlier }) });
    form.append(input);
  }
}

document.addEventListener('haycart:keep', () => {
  const all = kept();
  always = true;
  keep(all);
});
document.addEventListener('haycart:forget', () => {
  for (const storage of storages()) storage.removeItem(KEEP_AS);
});
if (document.readyState === 'loading') document.addEventListener('DOMContentLoaded', handOver);
else handOver();
export {};
