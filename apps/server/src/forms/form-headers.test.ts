import { describe, expect, test } from '@jest/globals';
import type { FormDefinition } from '@haycart/core';
import { formHeaders } from './form-headers';

const FORM: FormDefinition = {
  format: 'haycart.form/1',
  title: 'Ask us',
  language: 'en',
  button: 'Send',
  after: { do: 'thank', title: 'Thanks', text: '' },
  items: [],
};
/** The policy by its directives. */
function policy(form: Partial<FormDefinition>): Record<string, string> {
  const text = formHeaders({ ...FORM, ...form }, 'abc')['content-security-policy']!;
  return Object.fromEntries(text.split('; ').map((part) => part.split(/ (.*)/s).slice(0, 2) as [string, string]));
}

describe('the policy of a form’s page', () => {
  test.each<[string, Partial<FormDefinition>]>([
    ['plain', {}],
    ['with code of its own', { snippets: { head: '<script>x()</script>' } }],
    ['that leads on', { after: { do: 'redirect', to: 'https://www.quillfern.example/thanks' } }],
  ])('%s gives it an origin of its own, without cookies, storage or the application', (_, form) => {
    expect(policy(form).sandbox).not.toContain('allow-same-origin');
    expect(policy(form).sandbox).not.toContain('allow-top-navigation ');
    expect(policy(form)['default-src']).toBe("'none'");
    expect(policy(form)['base-uri']).toBe("'none'");
  });

  test('without code of its own runs nothing but ours', () => {
    const own = policy({});
    expect([own['script-src'], own['style-src'], own['connect-src']]).toEqual([
      "'self' 'nonce-abc'",
      "'self' 'nonce-abc'",
      "'self'",
    ]);
    expect(JSON.stringify(own)).not.toContain('unsafe');
  });

  test('with code of its own lets that run', () =>
    expect(policy({ snippets: { body: '<script>x()</script>' } })['script-src']).toBe("* 'unsafe-inline'"));

  test('lets any page embed it, or those that are allowed', () => {
    expect(policy({})['frame-ancestors']).toBe('*');
    expect(policy({ embedOn: ['https://www.quillfern.example'] })['frame-ancestors']).toBe(
      "'self' https://www.quillfern.example",
    );
  });

  test('lets sending lead on to the sites that are listed, and only when it leads on', () => {
    const mayLeadTo = ['https://www.quillfern.example'];
    const redirect = { do: 'redirect' as const, to: 'https://www.quillfern.example/thanks' };
    expect(policy({ after: redirect, mayLeadTo })['form-action']).toBe("'self' https://www.quillfern.example");
    expect(policy({ mayLeadTo })['form-action']).toBe("'self'");
  });
});

test('a form’s page is never kept, and never taken for something else', () =>
  expect(formHeaders(FORM, 'abc')).toMatchObject({
    'cache-control': 'no-store',
    'x-content-type-options': 'nosniff',
    'content-type': 'text/html; charset=utf-8',
  }));
