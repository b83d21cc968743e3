import type { Content } from '@haycart/core';
import { attributes, escape, paragraphs } from './html';

/** Tells the form around free code how high it is. */
const SAY_HEIGHT =
  "new ResizeObserver(()=>parent.postMessage({haycart:'height',height:document.documentElement.getBoundingClientRect().height},'*')).observe(document.documentElement)";

/**
 * What stands between questions. Free code stands in a frame of its own that can reach nothing; `nonce` is that of the
 * page, whose policy holds in the frame too.
 */
export function contentHtml({ type, text = '', parts = [] }: Content, nonce: string): string {
  switch (type) {
    case 'heading':
      return `<h2>${escape(text)}</h2>`;
    case 'text-block':
      return paragraphs(text);
    case 'divider':
      return '<hr>';
    case 'image':
      return parts.slice(0, 1).map(picture).join('');
    case 'gallery':
      return `<div class="gallery">${parts.map(picture).join('')}</div>`;
    case 'logos':
      return `<div class="logos">${parts.map(picture).join('')}</div>`;
    case 'video':
    case 'social':
      return `<p class="${type}">${parts
        .map(
          ({ address, text: words }) =>
            `<a${attributes({ href: address, target: '_blank', rel: 'noopener noreferrer' })}>${escape(words || address)}</a>`,
        )
        .join(' ')}</p>`;
    case 'html':
      return `<iframe class="code" sandbox="allow-scripts allow-popups"${attributes({ title: 'Content', srcdoc: `${text}<script nonce="${nonce}">${SAY_HEIGHT}</script>` })}></iframe>`;
    case 'step':
      return text ? `<h2>${escape(text)}</h2>` : '';
  }
}

function picture({ address, text }: { address: string; text: string }): string {
  return `<img${attributes({ src: address, loading: 'lazy' })} alt="${escape(text)}">`;
}
