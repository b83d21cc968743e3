import anyAscii from 'any-ascii';
import throwAwayDomains from 'disposable-email-domains/wildcard.js';
import freeMailDomains from 'free-email-domains';
import { Liquid } from 'liquidjs';
import { RE2JS } from 're2js';
import { Library } from './library';
import type { Libraries } from './libraries';

/** The large libraries where the whole core is loaded at once: the server, commands and tests. */
export const { letters, patterns, templates, mailServices }: Libraries = {
  letters: new Library('letters', { atHand: anyAscii }),
  patterns: new Library('patterns', { atHand: RE2JS }),
  templates: new Library('templates', { atHand: Liquid }),
  mailServices: new Library('mail services', { atHand: { free: freeMailDomains, throwAway: throwAwayDomains } }),
};
