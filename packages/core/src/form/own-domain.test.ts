import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { pathOnOwnDomain, proofRecord, readDomain } from './own-domain';

describe('the name of a domain', () => {
  test.each([
    ['forms.quillfern.example', 'forms.quillfern.example'],
    ['  HTTPS://Forms.Quillfern.example/f/survey?x=1 ', 'forms.quillfern.example'],
    ['forms.quillfern.example.', 'forms.quillfern.example'],
    ['formulare.blumenstraße.example', 'formulare.xn--blumenstrae-46a.example'],
    ['forms.quillfern.example:8443', 'forms.quillfern.example'],
  ])('%j is read as %s', (typed, host) => expect(readDomain(typed)).toEqual({ host }));

  test.each(['', 'localhost', 'example', 'co.uk', '127.0.0.1', '[::1]', '2130706433', 'a b.example', 'http://', '-.-'])(
    '%j is nobody’s own',
    (typed) => expect(readDomain(typed)).toHaveProperty('problem'),
  );

  test('is read or refused with a sentence, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string(), (typed) => {
        const read = readDomain(typed);
        if ('host' in read) expect(readDomain(read.host)).toEqual(read);
        else expect(read.problem).toMatch(/\.$/);
      }),
    );
  });

  test('is proven by a record beside it', () =>
    expect(proofRecord('forms.quillfern.example', 'abc')).toEqual({
      name: '_haycart.forms.quillfern.example',
      text: 'haycart-proof=abc',
    }));
});

test.each([
  ['/survey', '/f/survey'],
  ['/survey/?utm_source=show', '/f/survey?utm_source=show'],
  ['/f/survey?lang=nl', '/f/survey?lang=nl'],
  ['/f/survey/seen?version=2', '/f/survey/seen?version=2'],
  ['/in/abc', '/in/abc'],
  ['/embed/survey.js', '/embed/survey.js'],
  ['/forms/form.css', '/forms/form.css'],
  ['/', null],
  ['/api/v1/session', null],
  ['/intakes/abc', null],
  ['/../api', null],
  ['//evil.example', null],
  ['/f/', '/f/f'],
])('on an own domain, %s leads to %s', (address, path) => expect(pathOnOwnDomain(address)).toBe(path));
