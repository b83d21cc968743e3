import { describe, expect, test } from '@jest/globals';
import { checkMailTemplate, MAIL_LIMITS, namesInMail, renderMail } from './mail-template';

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

  test('leaves blank what is not there, and gives nothing of what objects inherit', () => {
    const rendered = renderMail(
      { ...template, text: '[{{ contact.gone }}{{ answers.constructor }}{{ answers.a.b.c }}]' },
      { answers: {}, route: { name: 'R' }, contact: {} },
    );
    expect(rendered).toEqual({ subject: 'Hello', text: '[]', html: null });
  });
});
