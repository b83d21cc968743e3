import type { Content } from '@haycart/core';
import { attributes, joined, markup, paragraphs, type Html } from './html';

/** Tells the form around free code how high it is. */
const SAY_HEIGHT =
  "new ResizeObserver(()=>parent.postMessage({haycart:'height',height:document.documentElement.getBoundingClientRect().height},'*')).observe(document.documentElement)";

/**
 * What stands between questions. Free code stands in a frame of its own that can reach nothing; `nonce` is that of the
 * page, whose policy holds in the frame too.
 */
export function contentHtml({ type, text = '', parts = [] }: Content, nonce: string): Html {
  switch (type) {
    case 'heading':
      return markup`<h2>${text}</h2>`;
    case 'text-block':
      return paragraphs(text);
    case 'divider':
      return markup`<hr>`;
    case 'image':
      return joined(parts.slice(0, 1).map(picture));
    case 'gallery':
      return markup`<div class="gallery">${parts.map(picture)}</div>`;
    case 'logos':
      return markup`<div class="logos">${parts.map(picture)}</div>`;
    case 'video':
    case 'social':
      return markup`<p class="${type}">${joined(
        parts.map(
          ({ address, text: words }) =>
            markup`<a${attributes({ href: address, target: '_blank', rel: 'noopener noreferrer' })}>${words || address}</a>`,
        ),
        ' ',
      )}</p>`;
    case 'html':
      return markup`<iframe class="code" sandbox="allow-scripts allow-popups"${attributes({ title: 'Content', srcdoc: `${text}<script nonce="${nonce}">${SAY_HEIGHT}</script>` })}></iframe>`;
    case 'step':
      return text ? markup`<h2>${text}</h2>` : joined([]);
  }
}

function picture({ address, text }: { address: string; text: string }): Html {
  return markup`<img${attributes({ src: address, loading: 'lazy' })} alt="${text}">`;
}
