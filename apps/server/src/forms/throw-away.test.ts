import { expect, test } from '@jest/globals';
import { isThrowAwayDomain } from './throw-away';

test.each([
  ['mailinator.com', true],
  ['MAILINATOR.COM', true],
  ['anything.33mail.com', true],
  ['quillfern.example', false],
  ['gmail.com', false],
  ['com', false],
  ['', false],
])('mail to %s is thrown away: %s', (domain, gone) => expect(isThrowAwayDomain(domain)).toBe(gone));
