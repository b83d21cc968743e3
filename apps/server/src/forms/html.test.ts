import { describe, expect, test } from '@jest/globals';
import { CONTENT_TYPES, PLAIN_THEME, THEME_FONTS, type ContentTypeName } from '@haycart/core';
import fc from 'fast-check';
import { contentHtml } from './content-html';
import { embedCode } from './embed-code';
import { attributes, joined, markup, paragraphs, trusted } from './html';
import { themeCss } from './theme-css';

const HOSTILE = ['"><script>alert(1)</script>', "' onerror='x", '</iframe><b>', '</style><i>', '<!--', '</script>'];

describe('text in a page', () => {
  test('never leaves its place, whatever it is', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        const safe = markup`${text}`.toString();
        expect(safe).not.toMatch(/[<>"']/);
        expect(String(attributes({ title: text }))).toBe(` title="${safe}"`);
        expect(String(markup`<b>${[text, markup`<i>${text}</i>`]}</b>`)).toBe(`<b>${safe}<i>${safe}</i></b>`);
      }),
    );
  });

  test('is left out where it is not there, and stands as it is where it is HTML', () => {
    expect(String(markup`a${null}${undefined}${false}${''}b${0}${trusted('<hr>')}`)).toBe('ab0<hr>');
    expect(String(joined(['<', null, markup`<br>`], ', '))).toBe('&#60;, <br>');
  });

  test('is attributes that are there, alone, or left out', () =>
    expect(String(attributes({ a: true, b: false, c: null, d: undefined, e: '', f: 0, g: 'x' }))).toBe(
      ' a e="" f="0" g="x"',
    ));

  test('with empty lines is paragraphs', () =>
    expect(String(paragraphs('One\ntwo\n\n\n  \n\nThree'))).toBe('<p>One<br>two</p><p>Three</p>'));
});

describe('content between questions', () => {
  const shown = (type: ContentTypeName, text: string) =>
    String(contentHtml({ name: 'c', type, text, parts: [{ address: `https://x.example/${text}`, text }] }, 'n'));

  test.each(CONTENT_TYPES)('of the type %s lets nothing out of its place', (type) => {
    for (const text of HOSTILE) expect(shown(type, text)).not.toContain(text);
  });

  test.each<[ContentTypeName, RegExp]>([
    ['heading', /^<h2>Hello<\/h2>$/],
    ['text-block', /^<p>Hello<\/p>$/],
    ['step', /^<h2>Hello<\/h2>$/],
    ['divider', /^<hr>$/],
    ['image', /^<img src="https:\/\/x.example\/Hello" loading="lazy" alt="Hello">$/],
    ['gallery', /^<div class="gallery"><img /],
    ['logos', /^<div class="logos"><img /],
    ['video', /^<p class="video"><a href="https:\/\/x.example\/Hello" target="_blank" rel="noopener noreferrer">Hello/],
    ['social', /^<p class="social"><a /],
    [
      'html',
      /^<iframe class="code" sandbox="allow-scripts allow-popups" title="Content" srcdoc="Hello&#60;script nonce=&#34;n&#34;&#62;/,
    ],
  ])('of the type %s', (type, html) => expect(shown(type, 'Hello')).toMatch(html));

  test('without pictures or words is nothing at all', () => {
    for (const type of ['image', 'step', 'text-block'] as const)
      expect(String(contentHtml({ name: 'c', type }, 'n'))).toBe('');
  });
});

test('the code that embeds a form keeps its title in its place', () => {
  for (const title of HOSTILE) {
    const code = embedCode('survey', title, 640);
    expect(code).not.toContain('<');
    expect(() => new Function(code)).not.toThrow();
  }
});

describe('a theme’s style', () => {
  test.each(THEME_FONTS)('in the font %s is one rule of properties', (font) =>
    expect(themeCss({ ...PLAIN_THEME, font })).toMatch(/^:root\{(--[a-z-]+:[^;{}]+;)*--[a-z-]+:[^;{}]+\}$/),
  );

  test('says where the button stands and how large it is', () => {
    const css = themeCss({ ...PLAIN_THEME, align: 'centre', button: { size: 'large', at: 'full' } });
    expect(css).toContain('--button-at:stretch');
    expect(css).toContain('--button:15px 34px');
    expect(css).toContain('--align:center');
  });
});
