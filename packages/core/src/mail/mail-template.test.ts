import { describe, expect, test } from '@jest/globals';
import { namesLink } from './mail-links';
import { checkMailTemplate, MAIL_LIMITS, namesInMail, readTranslations, renderMail, textsFor } from './mail-template';

const template = { name: 'Thanks', subject: 'Hello', text: 'Dear {{ contact.first_name }}', html: null };
const wrong = (change: object) => checkMailTemplate({ ...template, ...change }).map(({ at }) => at);

describe('a template', () => {
  test('has a name, a subject and a text, of a length that can be kept, in Liquid that ends', () => {
    expect(wrong({})).toEqual([]);
    expect(wrong({ name: ' ', subject: '', text: '' })).toEqual(['/name', '/subject', '/text']);
    expect(wrong({ text: 'x'.repeat(MAIL_LIMITS.text + 1) })).toEqual(['/text']);
    expect(wrong({ html: '{% if x %}' })).toEqual(['/html']);
    expect(wrong({ text: '{% for x in answers %}{% endfor %}' })).toEqual(['/text']);
    expect(wrong({ text: "{% include 'secret' %}" })).toEqual(['/text']);
  });

  test('says what it names, once, in conditions and filters too', () => {
    expect(
      namesInMail({
        ...template,
        subject: '{{ contact.email }}{{ contact.email }}',
        html: "{% assign own = deal.name %}{% if answers['first name'] %}{{ own | append: route.name }}{% endif %}",
      }),
    ).toEqual([
      { part: 'subject', path: ['contact', 'email'] },
      { part: 'text', path: ['contact', 'first_name'] },
      ...[
        ['deal', 'name'],
        ['answers', 'first name'],
        ['route', 'name'],
      ].map((path) => ({ part: 'html', path })),
    ]);
  });

  test('speaks the language of its reader where it can, and else its own', () => {
    const inOther = (subject: string) => ({ subject, text: '{{ confirm.link }}', html: null });
    const many = { key: 'k', ...template, translations: { nl: inOther('Dag'), 'pt-BR': inOther('Oi') } };
    const subjectFor = (language?: string) => textsFor(many, language).subject;
    expect(['nl', 'nl-BE', 'NL', 'pt', 'pt-br', 'de', '', 'x'.repeat(9_000)].map(subjectFor)).toEqual([
      ...['Dag', 'Dag', 'Dag', 'Oi', 'Oi'],
      ...['Hello', 'Hello', 'Hello'],
    ]);
    expect(subjectFor()).toBe('Hello');
    // A link that one of the languages lacks is missing.
    expect(namesLink(many, 'confirm.link')).toBe(false);
    expect(namesLink({ ...many, text: '{{ confirm.link }}' }, 'confirm.link')).toBe(true);
  });

  test('is checked in each of its languages', () => {
    const nl = { subject: '', text: '{% if x %}', html: null };
    expect(wrong({ translations: { nl } })).toEqual(['/translations/nl/subject', '/translations/nl/text']);
    expect(wrong({ translations: { 'no language': { ...nl, subject: 'a', text: 'a' } } })).toEqual(['/translations']);
    const many = Array.from({ length: 21 }, (_, n) => [`en-${100 + n}`, { subject: 'a', text: 'a', html: null }]);
    expect(wrong({ translations: Object.fromEntries(many) as object })).toEqual(['/translations']);
  });

  test.each([
    [{ nl: { subject: 'a', text: 'b' } }, { nl: { subject: 'a', text: 'b', html: null } }],
    [{}, {}],
    [{ nl: null }, null],
    [{ nl: 'x' }, null],
    [{ nl: { subject: 'a' } }, null],
    [{ nl: { subject: 'a', text: 'b', html: 1 } }, null],
    [{ nl: { subject: 'a', text: 'b', also: 1 } }, null],
    [
      JSON.parse('{"__proto__": {"subject": "a", "text": "b"}}') as object,
      { ['__proto__']: { subject: 'a', text: 'b', html: null } },
    ],
  ])('reads %j', (given, read) => expect(JSON.stringify(readTranslations(given))).toBe(JSON.stringify(read)));

  test('leaves blank what is not there, and gives nothing of what objects inherit', () => {
    const rendered = renderMail(
      { ...template, text: '[{{ contact.gone }}{{ answers.constructor }}{{ answers.a.b.c }}]' },
      { answers: {}, route: { name: 'R' }, contact: {} },
    );
    expect(rendered).toEqual({ subject: 'Hello', text: '[]', html: null });
  });
});
