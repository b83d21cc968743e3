import type { FormDefinition } from '@haycart/core';

/**
 * What a form's page may do. It is kept off the application's own origin (`sandbox` without `allow-same-origin`): its
 * scripts have no cookie, no storage and no address of the application, so that code of its own can do no harm there.
 * Without such code nothing but our own style, script and font runs.
 */
export function formHeaders(form: FormDefinition, nonce: string): Record<string, string> {
  const own = form.snippets?.head || form.snippets?.body;
  const pictures = "img-src 'self' data: https: http:";
  const script = own ? "script-src * 'unsafe-inline'" : `script-src 'self' 'nonce-${nonce}'`;
  const style = own ? "style-src * 'unsafe-inline'" : `style-src 'self' 'nonce-${nonce}'`;
  const reach = own ? 'connect-src *; frame-src *' : "connect-src 'self'; frame-src 'self'";
  const embed = form.embedOn?.length ? `'self' ${form.embedOn.join(' ')}` : '*';
  return {
    'content-type': 'text/html; charset=utf-8',
    'content-security-policy': `default-src 'none'; ${script}; ${style}; font-src 'self'; ${pictures}; ${reach}; form-action 'self'${leadsTo(form)}; frame-ancestors ${embed}; base-uri 'none'; sandbox allow-forms allow-scripts allow-popups allow-popups-to-escape-sandbox allow-top-navigation-by-user-activation`,
    'referrer-policy': 'strict-origin-when-cross-origin',
    'x-content-type-options': 'nosniff',
    'cache-control': 'no-store',
  };
}

/** Sending a form may lead on to where it says: browsers hold redirects against the policy too. */
function leadsTo({ after, mayLeadTo = [] }: FormDefinition): string {
  return after.do === 'redirect' ? mayLeadTo.map((origin) => ` ${origin}`).join('') : '';
}
