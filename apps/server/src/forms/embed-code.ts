/**
 * The script that embeds one form. It only says which form it is and calls what is the same for all, so that neither it
 * nor the code in other people's pages ever changes.
 * `height`: what the form will need in pixels, so that the page around it hardly moves when it is there.
 */
export function embedCode(slug: string, title: string, height: number): string {
  const form = JSON.stringify({ slug, title, height });
  return `(function (d) {
  var me = d.currentScript, script = d.createElement('script');
  script.src = new URL('/forms/embed.js', me.src).href;
  Object.assign(script.dataset, me.dataset);
  script.dataset.form = ${JSON.stringify(form).replaceAll('<', '\\u003c')};
  me.parentNode.insertBefore(script, me.nextSibling);
})(document);
`;
}
