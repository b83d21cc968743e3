import { describe, expect, test } from '@jest/globals';
import { buildLink } from './campaign/build-link';
import { nearestCampaign } from './campaign/nearest-campaign';
import { plainName } from './channel/names';
import { similarNames } from './channel/similar-names';
import { wayOf } from './channel/way';
import { CONDITION_TESTS } from './condition/registry';
import { meets } from './condition/comparison';
import { FIELD_TYPES, type FieldDefinition } from './field/field-definition';
import { readFieldValue } from './field/field-value';
import { fieldsFromText, headerRow } from './field/fields-from-text';
import { readMoney } from './reading/money';
import { newKey } from './field/new-key';
import { answerAsText } from './form/check-answers';
import type { FormDefinition, Question } from './form/definition';
import { formWords } from './form/form-words';
import { bestLanguage } from './form/localise';
import { pathOnOwnDomain, readDomain } from './form/own-domain';
import { fitsPattern } from './form/pattern';
import { QUESTION_TYPE_LIST } from './form/question-types/registry';
import { suspicionOf } from './form/suspicion';
import { filledIn } from './form/thank-text';
import { companyNameForm } from './identity/company-name-form';
import { COMPARATORS } from './identity/comparators/registry';
import { companyDomain } from './reading/domain';
import { normalEmail, severalEmails } from './reading/email';
import { normalExternalId } from './reading/external-id';
import { foldWords } from './reading/fold-text';
import { isRoleMailbox, mailboxOf } from './reading/mailbox';
import { nicknameRoots } from './identity/nicknames';
import { personNameForm } from './identity/person-name-form';
import { normalPhone } from './reading/phone';
import { textDifference } from './identity/text-difference';
import { FINISHERS } from './value/finishers/registry';
import { countryNamed } from './reading/country-name';
import { dateOrderOf, readDate } from './reading/date-text';
import { numberText, oneNumberIn } from './reading/number-text';
import { splitPersonName } from './reading/person-name';
import { yesOrNo } from './reading/yes-no-words';
import { readBody } from './payload/body';
import { answerAt, payloadFields } from './payload/fields';
import { emptyProfile, ProfileLearner } from './payload/profile';
import { taughtNames } from './payload/taught-names';
import { valueKind } from './payload/value-kind';
import { whoSent } from './payload/who';
import { decodeText } from './sheet/decode-text';
import { readDelimited } from './sheet/read-delimited';
import { readJson } from './sheet/read-json';
import { readVCards } from './sheet/read-vcards';
import { deviceOf } from './source/device';
import { readParameter } from './source/parameter';
import { readVisit } from './source/visit';
import { slowAttacks } from './testing/growth';
import { nearlySame, shorten, storableText } from './text';

const utf8 = new TextEncoder();
const CONTEXT = { defaultCountry: 'GB', defaultCurrency: 'GBP', answer: () => '', payload: {} };
const SETTING = { now: '2026-03-14T12:00:00.000Z', defaultCurrency: 'GBP', teams: {} };
const question = (type: string): Question =>
  ({ type, name: 'message', label: 'Message', options: [{ value: 'a', label: 'A' }] }) as unknown as Question;
const FORM = { language: 'en', translations: {}, items: [question('long-text')] } as unknown as FormDefinition;
const MANNER = { receivedAt: '2026-03-14T12:00:00.000Z', fromVisitor: 1 };
const field = (type: string) =>
  ({
    record: 'contact',
    key: 'one',
    label: 'One',
    type,
    options: [{ key: 'a', label: 'A' }],
  }) as unknown as FieldDefinition;
const all = (rows: Iterable<unknown>) => [...rows].length;

type Work = (text: string) => unknown;
const named = (kind: string, works: Record<string, Work>): [string, Work][] =>
  Object.entries(works).map(([name, work]) => [`${kind}: ${name}`, work]);

/** Everything that reads text from outside. */
const READERS: [string, Work][] = [
  ...FINISHERS.map(({ name, parameters, example, finish }): [string, Work] => [
    `finisher: ${name}`,
    (text) => finish(text, parameters.parse(example.with ?? {}), { ...CONTEXT, payload: { email: text } }),
  ]),
  ...CONDITION_TESTS.map((one): [string, Work] => {
    const compared = one.compare(one.example.wanted, { ...SETTING, type: one.example.type, caseSensitive: false });
    return [`test: ${one.name}`, (text) => typeof compared !== 'string' && meets(compared, text)];
  }),
  ...COMPARATORS.map(({ name, alike }): [string, Work] => [`comparator: ${name}`, (text) => alike(text, `${text}b`)]),
  ...QUESTION_TYPE_LIST.map((type): [string, Work] => [
    `question: ${type.name}`,
    (text) => type.read(text, question(type.name), { words: formWords('en') }),
  ]),
  ...FIELD_TYPES.map((type): [string, Work] => [
    `field: ${type}`,
    (text) => readFieldValue(field(type), text, { defaultCountry: 'GB', defaultCurrency: 'GBP' } as never),
  ]),
  ...named('guesser', {
    valueKind,
    yesOrNo,
    countryNamed,
    readDate,
    dateOrderOf: (text) => dateOrderOf([text]),
    numberText,
    oneNumberIn,
    splitPersonName,
    whoSent: (text) => whoSent({ [text]: text, name: text, email: text }),
    deviceOf,
    nearlySame: (text) => nearlySame(text, `${text}x`),
  }),
  ...named('identity', {
    companyNameForm,
    companyDomain,
    normalEmail,
    severalEmails,
    normalExternalId,
    foldWords,
    mailboxOf,
    isRoleMailbox,
    nicknameRoots,
    personNameForm: (text) => personNameForm({ first_name: text, last_name: text, full_name: text }),
    normalPhone: (text) => normalPhone(text, 'GB'),
    textDifference: (text) => textDifference(text, `${text}b`),
  }),
  ...named('text', {
    readMoney: (text) => readMoney(text, 'GBP'),
    newKey: (text) => newKey(text, []),
    fieldsFromText,
    headerRow,
    storableText,
    shorten: (text) => shorten(text, 60),
  }),
  ...named('form', {
    suspicionOf: (text) =>
      suspicionOf(FORM, { message: text }, { words: ['casino', 'a'], domains: ['spam.example'] }, MANNER),
    filledIn: (text) => filledIn(text, FORM, { message: text }),
    bestLanguage: (text) => bestLanguage(FORM, text),
    pathOnOwnDomain,
    readDomain,
    fitsPattern: (text) => fitsPattern(text, 'AA99'),
    answerAsText,
  }),
  ...named('payload', {
    json: (text) => readBody('json', utf8.encode(text)),
    urlencoded: (text) => readBody('urlencoded', utf8.encode(text)),
    payloadFields: (text) => payloadFields({ [text]: text, list: [{ question: text, answer: text }] }),
    answerAt: (text) => answerAt({ a: { b: text } }, text),
    learn: (text) => new ProfileLearner(emptyProfile()).learn({ [text.slice(0, 100)]: text }, SETTING.now),
    taughtNames: (text) => taughtNames({ [text]: text }, ['a']),
    readParameter,
    readVisit: (text) => readVisit({ handedOver: text, headers: { referer: text, userAgent: text } }),
  }),
  ...named('source', {
    plainName,
    similarNames: (text) =>
      similarNames([
        { name: text, touches: 1 },
        { name: `${text}x`, touches: 1 },
      ]),
    buildLink: (text) => buildLink(text, { utm_source: text }),
    nearestCampaign: (text) => nearestCampaign(text, [{ code: `${text}x`, name: text }]),
    wayOf: (text) =>
      wayOf({ intake: 'a', visit: { referrer: text, page: text, userAgent: text }, origin: {}, payload: {} }),
  }),
  ...named('sheet', {
    decodeText: (text) => decodeText(utf8.encode(text)),
    readDelimited: (text) => {
      const read = readDelimited(`name,email\n${text}`);
      return read.ok && all(read.rows());
    },
    readJson: (text) => all(readJson(text)),
    readVCards: (text) => all(readVCards(text)),
  }),
];

describe('the time that a text from outside takes grows with its length, and no faster', () => {
  test.each(READERS)('%s', (_, work) => {
    expect(slowAttacks(work)).toEqual([]);
  });
});
