/** A form in its editor: what is clicked is chosen there, and what is chosen there is marked here. */
let marked: HTMLElement | null = null;

addEventListener('click', ({ target }) => {
  const item = (target as HTMLElement).closest<HTMLElement>('[data-item]')?.dataset.item;
  if (item) parent.postMessage({ haycart: 'chosen', item }, '*');
});

addEventListener('message', ({ source, data }: MessageEvent<{ haycart?: string; item?: string | null }>) => {
  if (source !== parent || data.haycart !== 'show') return;
  if (marked) marked.style.outline = '';
  const found = data.item
    ? document.querySelector<HTMLElement>(`[data-item="${data.item}"], [data-step="${data.item}"]`)
    : null;
  marked = found;
  if (!found) return;
  document.querySelector('form')?.dispatchEvent(new CustomEvent('haycart:show', { detail: found }));
  found.style.outline = '2px solid #e2b23a';
  found.style.outlineOffset = '6px';
  // Only the frame scrolls: the editor around it stays where somebody is editing.
  const { top, bottom } = found.getBoundingClientRect();
  if (top < 0 || bottom > innerHeight) scrollBy({ top: top - 60 });
});
parent.postMessage({ haycart: 'ready' }, '*');
export {};
