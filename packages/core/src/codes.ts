/**
 * What can be wrong with something that is checked, by code: each with what it means in general. The message beside a code
 * says it of the thing in question. Codes are for programs and never change.
 */
export const PROBLEM_CODES = {
  // Reading what is sent.
  'not-an-object': 'The body is neither an object nor a list of objects.',
  'not-json': 'The body is not JSON (RFC 8259).',
  'not-utf8': 'The body is not text in UTF-8.',
  'too-deep': 'Objects or lists stand too deep in one another.',
  'too-long': 'A text or the name of a field is longer than can be kept.',
  'too-many-fields': 'There are more fields than can be taken.',
  'too-short': 'A text is shorter than is asked for.',

  // Answers to the questions of a form.
  'file-too-large': 'The file is larger than is taken.',
  'files-full': 'No more files are kept.',
  'not-a-date': 'This is no day of the calendar.',
  'not-a-file': 'A file is expected here.',
  'not-a-number': 'This is no number.',
  'not-a-phone': 'This is no phone number.',
  'not-a-web-address': 'This is no web address.',
  'not-a-work-email': 'A private mailbox does not do here; a work address is asked for.',
  'not-an-amount': 'This is no amount of money.',
  'not-an-email': 'This is no e-mail address.',
  'not-a-domain': 'This is no domain.',
  'other-shape': 'The answer has another shape than the question asks for.',
  required: 'A question that must be answered is not.',
  'throw-away-email': 'The address is of a provider whose mailboxes last for minutes.',
  'too-large': 'The number, date or length is above the most.',
  'too-small': 'The number, date or length is below the least.',
  'unknown-choice': 'This is none of what can be chosen.',
  'wrong-file-type': 'Files of this type are not taken.',

  // Reading a value for a field.
  'email-too-long': 'The address is longer than an address may be (RFC 5321).',
  'not-a-country': 'No country is called so.',
  'not-a-postal-code': 'The country has no postal codes like this.',
  'not-an-external-id': 'This is no id of another system.',
  'not-yes-or-no': 'This is neither a yes nor a no.',
  'order-unknown': 'Day and month of the date can be read in either order.',
  'several-emails': 'There are several addresses; the first is taken.',
  'several-phones': 'There are several numbers; the first is taken.',
  untranslated: 'The answer is not in the table that translates it.',
  'value-does-not-fit': 'The value does not fit the type of its field.',
  'value-too-long': 'The value is longer than its field holds.',

  // Routes.
  'cell-does-not-fit': 'A cell of a decision table cannot be read.',
  'decided-too-early': 'A decision table looks at a record that is written only afterwards.',
  'output-does-not-fit': 'An output of a decision table does not fit its type.',
  'unknown-decision': 'There is no such decision table.',
  'unknown-output': 'The decision table has no such output.',
  'blank-text': 'A follow-up has nothing to say.',
  'blank-title': 'A task has no title.',
  'condition-does-not-fit': 'The condition compares what cannot be compared.',
  'fed-twice': 'One field is fed twice in one write.',
  'kept-field': 'The field is kept by the application and cannot be written.',
  'match-does-not-fit': 'The rule of recognition does not fit the kind of record.',
  'match-unfed': 'The rule of recognition looks for a value that nothing feeds.',
  'message-does-not-fit': 'A message goes another way than its channel.',
  'never-recognised': 'The write recognises nobody, so every submission makes a new record.',
  'needs-contact': 'It needs a contact.',
  'no-address': 'No e-mail address is known to which a mail could go.',
  'no-number': 'No phone number is known of the person.',
  'no-intake': 'The route takes from no intake.',
  'no-owner': 'Nobody of the team can be given the record just now.',
  'no-part': 'The value has no parts.',
  'no-place': 'The write says no pipeline and stage.',
  'no-write': 'The route writes nothing.',
  'not-a-key': 'This is no key of a field.',
  'not-an-address': 'This is no web address that can be sent to.',
  'not-built-yet': 'This part of a route is not carried out by this version.',
  'place-does-not-fit': 'A record of this kind cannot be placed in this pipeline.',
  'required-unfed': 'Nothing feeds a field that must not be blank.',
  'rule-twice': 'The same matching rule is listed twice.',
  'source-unfed': 'Nothing records where the submission came from.',
  'template-failed': 'The template cannot be read.',
  'unknown-field': 'There is no such field.',
  'unknown-finisher': 'There is no such finisher.',
  'template-does-not-fit': 'A template is none, or names what there is not.',
  'unknown-template': 'There is no such template.',
  'unknown-file': 'There is no such file.',
  'unknown-channel': 'There is no such channel.',
  'unknown-intake': 'There is no such intake.',
  'list-does-not-fit': 'Only contacts can be put in a list.',
  'unknown-list': 'There is no such list.',
  'unknown-mark': 'The route names tags or lists that do not exist.',
  'unknown-option': 'The field has no such option.',
  'unknown-person': 'There is no such person.',
  'unknown-pipeline': 'There is no such pipeline.',
  'unknown-stage': 'The pipeline has no such stage.',
  'unknown-tag': 'There is no such tag.',
  'unknown-team': 'There is no such team.',
  'unknown-visit-part': 'A visit has no such part.',
  'unknown-write': 'The route has no such write.',
  'unseen-answer': 'No submission has had this answer so far.',

  // Forms.
  'conditions-in-a-circle': 'Two questions are shown depending on one another.',
  'consent-without-version': 'The consent names no version of its text.',
  'empty-step': 'A step asks nothing.',
  'leads-elsewhere': 'The form leads to a site that is not allowed.',
  'low-contrast': 'The colours are too like one another to be read (WCAG 2.2).',
  'hidden-without-value': 'A hidden question has no value.',
  'required-but-hidden': 'A hidden question must be answered, and nothing fills it.',
  'never-shown': 'The question can never be shown.',
  'no-label': 'A question has no label.',
  'no-question': 'The form asks nothing.',
  'not-a-colour': 'This is no colour in hexadecimal.',
  'waits-for-later': 'The question is shown depending on one that comes after it.',

  // What a workspace prepares.
  'away-does-not-fit': 'The days of absence end before they begin.',
  'cannot-be-unique': 'Values of this type cannot be kept from being the same.',
  'cannot-group': 'A list cannot be grouped by this field.',
  'cannot-sort': 'A list cannot be sorted by this field.',
  'capacity-does-not-fit': 'The capacity is no whole number that is allowed.',
  'skill-does-not-fit': 'What somebody knows is too long, or has commas in it.',
  'default-not-open': 'The stage where records begin is not an open one.',
  'group-too-long': 'The name of the group is too long.',
  'help-too-long': 'The help is too long.',
  'hours-do-not-fit': 'The working hours end before they begin.',
  'label-blank': 'There is no label.',
  'label-taken': 'Another field of the record has this label.',
  'label-too-long': 'The label is too long.',
  'name-blank': 'There is no name.',
  'name-taken': 'Another one has this name.',
  'name-too-long': 'The name is too long.',
  'no-open-stage': 'A pipeline needs an open stage.',
  'no-option': 'A field to choose from needs an option.',
  'not-a-day': 'This is no day of the calendar.',
  'not-a-rate': 'This is no rate between currencies.',
  'option-ambiguous': 'Two options have the same label.',
  'option-blank': 'An option has no label.',
  'option-too-long': 'The label of an option is too long.',
  'options-do-not-fit': 'A field of this type has no options.',
  'out-of-range': 'The number is outside of what is allowed.',
  'own-currency': 'The workspace’s own currency has no rate.',
  'rate-twice': 'There are two rates of one currency for one day.',
  setting: 'The setting does not fit this kind of intake.',
  'threshold-outside': 'The threshold is no probability.',
  'thresholds-cross': 'The threshold to ask from is above the one to accept from.',
  'too-many-options': 'There are more options than a field can have.',
  'unknown-currency': 'There is no such currency (ISO 4217).',
  'unknown-language': 'There is no such language.',
  'unknown-region': 'There is no such region.',
  'unknown-rule': 'There is no such rule of recognition.',
  'unknown-time-zone': 'There is no such time zone.',

  // Records and what is done with them.
  'changed-meanwhile': 'Somebody changed the value meanwhile.',
  'identity-taken': 'Another record has this value already, and no two may have the same.',
  'merge-with-itself': 'A record cannot be merged with itself.',
  'required-blank': 'A field that must not be blank would be.',
  'unknown-place': 'There is no such pipeline and stage to go to.',
  'unknown-record': 'There is no such record.',
  whose: 'It is not said which of the two something goes to.',

  // Requests, and definitions of routes and forms as a whole.
  'unknown-property': 'There is a property that is not known.',
  'wrong-shape': 'The whole has another shape than it should.',
  'not-loaded': 'A part of the page could not be loaded.',
  'cannot-qualify': 'The lead cannot become a deal as it is.',
  differs: 'A saved case would come out in another way.',
  missing: 'Something that is needed is not given.',
  'weak-password': 'The password is easy to guess.',
  'wrong-password': 'The password is not the present one.',
  'wrong-value': 'The value is of another type or outside of what is allowed.',
} as const satisfies Record<string, string>;

export type ProblemCode = keyof typeof PROBLEM_CODES;

/** What a hold waits for. */
export type HoldKind = 'which-record' | 'value' | 'approval' | 'confirmation' | 'paused';

/** What would release what is held, by what it waits for. */
export const HOLD_KINDS: Record<HoldKind, string> = {
  'which-record': 'Somebody says which record is meant.',
  value: 'Somebody says what the answer means.',
  approval: 'Somebody who is asked says yes or no.',
  confirmation: 'The visitor confirms by the mail that was sent.',
  paused: 'The route is resumed.',
};

interface ReasonMeaning {
  outcome: 'hold' | 'skip' | 'fail';
  /** Only of what is held. */
  hold?: HoldKind;
  /** What it means in general. */
  means: string;
}

/** Why a run was not written, by code. Codes never change. */
export const REASON_CODES = {
  'route-paused': { outcome: 'hold', hold: 'paused', means: 'The route was paused when the submission arrived.' },
  undecided: { outcome: 'fail', means: 'A decision table cannot be read, or two of its rows fit where one may.' },
  'which-record': { outcome: 'hold', hold: 'which-record', means: 'Several records may be meant.' },
  untranslated: { outcome: 'hold', hold: 'value', means: 'An answer is not in the table that translates it.' },
  approval: { outcome: 'hold', hold: 'approval', means: 'A person is asked before anything is written.' },
  confirmation: {
    outcome: 'hold',
    hold: 'confirmation',
    means: 'The visitor is asked by mail before anything is written.',
  },
  'not-confirmed': { outcome: 'skip', means: 'The visitor did not confirm in time.' },
  'not-asked': { outcome: 'fail', means: 'The visitor would have to confirm, and cannot be asked.' },
  denied: { outcome: 'skip', means: 'A person who was asked said no.' },
  'only-when': { outcome: 'skip', means: 'The submission does not meet the condition of the route.' },
  'left-out': { outcome: 'skip', means: 'It waited for a paused route, and was left out when that went on.' },
  cancelled: { outcome: 'skip', means: 'Its file was taken back before its turn came.' },
  'nothing-to-write': { outcome: 'skip', means: 'The route leaves such records as they are, or makes none.' },
  'could-not-write': { outcome: 'fail', means: 'It could not be written after several tries.' },
  'identity-taken': { outcome: 'fail', means: 'Another record has a value of which there is only one.' },
  'nothing-fits': { outcome: 'fail', means: 'Nothing that was given for a record can be used.' },
  'required-blank': { outcome: 'fail', means: 'A field that must not be blank would be.' },
  'unknown-field': { outcome: 'fail', means: 'The route writes a field that is not there any more.' },
  'unknown-pipeline': { outcome: 'fail', means: 'The route places into a pipeline that is not there any more.' },
  'unknown-stage': { outcome: 'fail', means: 'The route places into a stage that is not there any more.' },
  unreadable: { outcome: 'fail', means: 'The body that was sent cannot be read.' },
} as const satisfies Record<string, ReasonMeaning>;

export type ReasonCode = keyof typeof REASON_CODES;

/** What a run with this reason waits for; null where it does not wait. */
export function holdKindOf(code: ReasonCode): HoldKind | null {
  const meaning: ReasonMeaning = REASON_CODES[code];
  return meaning.hold ?? null;
}
