/**
 * Embeds a form where its script tag stands: in the page, behind a button, or sliding in at the side. It sets no cookie,
 * touches no style of the page around it (everything of it stands in a shadow tree), and takes the campaign parameters of
 * the page along. When the form was sent, the page hears `haycart:sent`.
 */
const script = document.currentScript as HTMLScriptElement;
const { form = '{}', how = 'page', label = '', side = 'right', look = '' } = script.dataset;
const { slug, title, height = 320 } = JSON.parse(form) as { slug: string; title: string; height?: number };
const origin = new URL(script.src).origin;
const CAMPAIGN = ['utm_source', 'utm_medium', 'utm_campaign', 'utm_term', 'utm_content'];

function address(): string {
  const query = new URLSearchParams(location.search);
  const next = new URLSearchParams({ embed: '1', page: location.origin + location.pathname });
  for (const name of CAMPAIGN) {
    const value = query.get(name);
    if (value) next.set(name, value);
  }
  if (document.referrer && new URL(document.referrer).origin !== location.origin)
    next.set('referrer', document.referrer);
  if (look === 'host') for (const [name, colour] of Object.entries(hostColours())) if (colour) next.set(name, colour);
  // What the form takes from the address by a name of its own stands there under that name.
  for (const [name, value] of query) if (!next.has(name)) next.set(name, value);
  return `${origin}/f/${slug}?${next.toString()}`;
}

/** The colours of the page around: what stands behind the form, its text, and its links. */
function hostColours(): Record<'background' | 'ink' | 'accent', string | null> {
  const around = script.parentElement ?? document.body;
  const link = document.querySelector('a, button');
  let behind: Element | null = around;
  while (behind && !asHex(getComputedStyle(behind).backgroundColor)) behind = behind.parentElement;
  return {
    background: behind ? asHex(getComputedStyle(behind).backgroundColor) : '#ffffff',
    ink: asHex(getComputedStyle(around).color),
    accent: link && asHex(getComputedStyle(link).color),
  };
}

/** A colour as browsers tell it, `rgb(1, 2, 3)`, as `#rrggbb`; null where it lets through what is behind it. */
function asHex(colour: string): string | null {
  const [red, green, blue, alpha] = (colour.match(/[\d.]+/g) ?? []).map(Number);
  if (red === undefined || green === undefined || blue === undefined || (alpha !== undefined && alpha < 1)) return null;
  return `#${[red, green, blue].map((part) => Math.round(part).toString(16).padStart(2, '0')).join('')}`;
}

const place = document.createElement('div');
const shadow = place.attachShadow({ mode: 'open' });
const style = document.createElement('style');
style.textContent = `
  :host { all: initial; display: block; }
  iframe { border: 0; width: 100%; height: ${height}px; display: block; color-scheme: normal; }
  button { font: 600 16px/24px system-ui, sans-serif; padding: 10px 20px; border: 0; border-radius: 3px; background: #27687a; color: #fff; cursor: pointer; }
  dialog { border: 0; padding: 0; width: min(680px, 96vw); max-height: 92vh; border-radius: 3px; overflow: auto; }
  dialog.slide { margin: 0 0 0 auto; height: 100vh; max-height: 100vh; width: min(460px, 100vw); border-radius: 0; }
  dialog.slide.left { margin: 0 auto 0 0; }
  dialog::backdrop { background: rgb(0 0 0 / 45%); }
  .close { position: absolute; top: 8px; right: 8px; padding: 2px 10px; background: transparent; color: #1b2b36; font-size: 22px; }`;
shadow.append(style);

function frame(): HTMLIFrameElement {
  const made = document.createElement('iframe');
  made.title = title;
  made.src = address();
  made.loading = how === 'page' ? 'lazy' : 'eager';
  addEventListener('message', (event: MessageEvent<{ haycart?: string; height?: number }>) => {
    if (event.source !== made.contentWindow) return;
    const { haycart, height } = event.data ?? {};
    if (haycart === 'height' && typeof height === 'number') made.style.height = `${Math.min(height, 20_000)}px`;
    if (haycart === 'sent') {
      place.dispatchEvent(new CustomEvent('haycart:sent', { bubbles: true, composed: true, detail: { form: slug } }));
      if (how === 'page') place.scrollIntoView({ block: 'nearest' });
    }
  });
  return made;
}

if (how === 'page') {
  shadow.append(frame());
} else {
  const open = document.createElement('button');
  open.type = 'button';
  open.textContent = label || title;
  const dialog = document.createElement('dialog');
  dialog.setAttribute('aria-label', title);
  if (how === 'slide') dialog.className = `slide ${side}`;
  const close = document.createElement('button');
  close.type = 'button';
  close.className = 'close';
  close.textContent = '×';
  close.setAttribute('aria-label', 'Close');
  close.addEventListener('click', () => dialog.close());
  dialog.append(close);
  open.addEventListener('click', () => {
    if (dialog.childElementCount === 1) dialog.append(frame());
    dialog.showModal();
  });
  shadow.append(open, dialog);
}
script.parentNode?.insertBefore(place, script.nextSibling);
export {};
