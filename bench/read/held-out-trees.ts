import { ENGLISH, at, byFact, form, ids, uuid, whole, type PayloadStyle } from './payload-style';

/** Answers within objects, by the sender’s own names. */
export const TREES: readonly Omit<PayloadStyle, 'heldOut'>[] = [
  {
    name: 'a person as JSON-LD',
    body: (sender) => ({
      '@context': 'https://schema.example',
      '@type': 'ContactAction',
      agent: {
        '@type': 'Person',
        givenName: sender.first,
        familyName: sender.last,
        email: `mailto:${sender.email}`,
        telephone: `tel:${sender.phone}`,
        jobTitle: sender.role,
        worksFor: { '@type': 'Organization', name: sender.company },
      },
      description: sender.message,
    }),
    has: ['first', 'last', 'email', 'company', 'role', 'message'],
  },
  {
    name: 'a booking with questions',
    body: (sender, index) => ({
      event: 'booking.made',
      created_at: at(index),
      payload: {
        uri: `https://calendar.example/guests/${uuid(index)}`,
        name: whole(sender),
        email: sender.email,
        timezone: 'Europe/London',
        event: { name: 'Site visit', start_time: at(index), uuid: uuid(index + 1) },
        asked: [
          { position: 0, question: 'Phone number', answer: sender.phone },
          { position: 1, question: 'Which organisation do you work for?', answer: sender.company },
          { position: 2, question: 'Anything we should know?', answer: sender.message },
        ],
      },
    }),
    has: ['first', 'last', 'email', 'phone', 'company', 'message'],
  },
  {
    name: 'a chat’s transcript of questions',
    body: (sender, index) => ({
      conversation: uuid(index),
      steps: [
        { prompt: 'Hello! What’s your name?', reply: whole(sender) },
        { prompt: 'And your e-mail?', reply: sender.email },
        { prompt: 'Which company are you with?', reply: sender.company },
        { prompt: 'What can we do for you?', reply: sender.message },
      ],
    }),
    has: ['first', 'last', 'email', 'company', 'message'],
  },
  {
    name: 'an order with billing',
    body: (sender, index) => ({
      id: 5000 + index,
      status: 'pending',
      currency: 'GBP',
      total: '120.00',
      billing: {
        first_name: sender.first,
        last_name: sender.last,
        company: sender.company,
        country: sender.country,
        email: sender.email,
        phone: sender.phone,
      },
      line_items: [{ id: 1, name: 'Cold frame', quantity: 2, sku: 'CF-2' }],
      customer_note: sender.message,
    }),
    has: ['first', 'last', 'email', 'phone', 'company', 'country', 'message'],
  },
  {
    name: 'attributes and relationships',
    body: (sender, index) => ({
      data: {
        type: 'enquiries',
        id: String(index),
        attributes: {
          'first-name': sender.first,
          'last-name': sender.last,
          'e-mail': sender.email,
          telephone: sender.phone,
          'company-name': sender.company,
          'country-code': sender.country,
          'job-title': sender.role,
          message: sender.message,
        },
      },
      included: [{ type: 'form', id: '9', attributes: { title: 'Contact' } }],
    }),
  },
  {
    name: 'nested data[Contact][email]',
    body: (sender) =>
      form({
        _method: 'POST',
        'data[Contact][name]': whole(sender),
        'data[Contact][email]': sender.email,
        'data[Contact][phone]': sender.phone,
        'data[Contact][company]': sender.company,
        'data[Contact][message]': sender.message,
        'data[Token][key]': 'abc99120ffe2',
      }),
    has: ['first', 'last', 'email', 'phone', 'company', 'message'],
  },
  {
    name: 'wizard steps',
    body: (sender) => ({
      step1: { firstName: sender.first, lastName: sender.last },
      step2: { contact: { email: sender.email, mobile: sender.phone } },
      step3: { business: { name: sender.company, country: sender.country, yourRole: sender.role } },
      step4: { details: sender.message },
    }),
  },
  {
    name: 'lists of names and values apart',
    body: (sender) => ({
      names: byFact((fact) => ENGLISH[fact]),
      values: byFact((fact) => sender[fact]),
      page: '/contact',
    }),
    asks: ENGLISH,
  },
  {
    name: 'result with questions by id, choices by id',
    body: (sender) => ({
      questions: Object.fromEntries(
        byFact((fact) => [
          ids[fact],
          fact === 'country'
            ? {
                title: ENGLISH[fact],
                choices: ['GB', 'NL', 'IE', 'DE', 'ES', 'SE', 'PL', 'IT'].map((code, place) => ({
                  id: `c${place}`,
                  label: code,
                })),
              }
            : { title: ENGLISH[fact] },
        ]),
      ),
      responses: byFact((fact) => ({
        questionId: ids[fact],
        value:
          fact === 'country'
            ? `c${['GB', 'NL', 'IE', 'DE', 'ES', 'SE', 'PL', 'IT'].indexOf(sender.country)}`
            : sender[fact],
      })),
    }),
    asks: ENGLISH,
  },
  {
    name: 'inputs[name] with about[...]',
    body: (sender) =>
      form({
        page_no: '812',
        form_id: '5fd2',
        page_title: 'Contact us',
        'inputs[name]': whole(sender),
        'inputs[email]': sender.email,
        'inputs[phone_a1]': sender.phone,
        'inputs[message]': sender.message,
        'about[date][title]': 'Date',
        'about[date][value]': 'March 12, 2027',
        'about[remote_ip][value]': '203.0.113.80',
      }),
    has: ['first', 'last', 'email', 'phone', 'message'],
  },
  {
    name: 'shouted keys with prefixes',
    body: (sender) => ({
      FRM_FIRST_NAME: sender.first,
      FRM_LAST_NAME: sender.last,
      FRM_EMAIL: sender.email,
      FRM_PHONE: sender.phone,
      FRM_COMPANY: sender.company,
      FRM_COUNTRY: sender.country,
      FRM_JOB_TITLE: sender.role,
      FRM_COMMENTS: sender.message,
    }),
  },
  {
    name: 'a name as an object among answers',
    body: (sender) => ({
      reply: '551',
      answers: {
        '1': { name: 'heading', text: 'Contact us', kind: 'heading' },
        '3': {
          name: 'name',
          text: 'Name',
          type: 'fullname',
          answer: { first: sender.first, last: sender.last },
          shown: whole(sender),
        },
        '4': { name: 'email', text: 'E-mail', type: 'email', answer: sender.email },
        '5': { name: 'phone', text: 'Phone', type: 'phone', answer: { full: sender.phone }, shown: sender.phone },
        '6': { name: 'message', text: 'Message', type: 'long', answer: sender.message },
        '7': { name: 'send', text: 'Send', type: 'button' },
      },
    }),
    has: ['first', 'last', 'email', 'phone', 'message'],
  },
  {
    name: 'text with a label each, by lines',
    body: (sender) =>
      form({
        fields: JSON.stringify(byFact((fact) => ({ label: ENGLISH[fact], value: sender[fact] }))),
        source: 'landing',
      }),
    asks: ENGLISH,
  },
  {
    name: 'keys with language codes',
    body: (sender) => ({
      en_first_name: sender.first,
      en_surname: sender.last,
      en_email_address: sender.email,
      en_contact_number: sender.phone,
      en_organisation_name: sender.company,
      en_country_of_residence: sender.country,
      en_job_role: sender.role,
      en_your_enquiry: sender.message,
    }),
  },
];
