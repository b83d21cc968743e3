import { ENGLISH, at, byFact, form, hex, ids, uuid, whole, type PayloadStyle } from './payload-style';

/** Written before reading was widened, by other habits; looked at only as a rate. */
export const HELD_OUT: readonly Omit<PayloadStyle, 'heldOut'>[] = [
  {
    name: 'entry of numbered fields with a description',
    body: (sender, index) => ({
      Reply: { No: index + 400, Created: at(index), By: 'public' },
      Structure: { Asked: byFact((fact, place) => ({ ID: `Field${place + 1}`, Title: ENGLISH[fact], Type: 'text' })) },
      ...Object.fromEntries(byFact((fact, place) => [`Field${place + 1}`, sender[fact]])),
    }),
    asks: ENGLISH,
  },
  {
    name: 'properties with values and versions',
    body: (sender) => ({
      object_id: 90018,
      account: 4471,
      properties: {
        firstname: { value: sender.first, revision: 1 },
        lastname: { value: sender.last, revision: 1 },
        email: { value: sender.email, revision: 2 },
        phone: { value: sender.phone, revision: 1 },
        company: { value: sender.company, revision: 1 },
        country: { value: sender.country, revision: 1 },
        jobtitle: { value: sender.role, revision: 1 },
        message: { value: sender.message, revision: 1 },
      },
    }),
  },
  {
    name: 'an envelope of a queue, payload as text',
    body: (sender, index) => ({
      MessageId: uuid(index),
      Topic: 'enquiries',
      Body: JSON.stringify({
        lead: {
          Name: whole(sender),
          Mail: sender.email,
          Tel: sender.phone,
          Firm: sender.company,
          Text: sender.message,
        },
      }),
    }),
    has: ['first', 'last', 'email', 'phone', 'company', 'message'],
  },
  {
    name: 'columns and rows',
    body: (sender) => ({
      table: 'leads',
      columns: byFact((fact) => ENGLISH[fact]),
      rows: [byFact((fact) => sender[fact])],
    }),
    asks: ENGLISH,
  },
  {
    name: 'two rows of a sheet',
    body: (sender) => ({ range: 'A1:H2', values: [byFact((fact) => ENGLISH[fact]), byFact((fact) => sender[fact])] }),
    asks: ENGLISH,
  },
  {
    name: 'names and contents of a mail form',
    body: (sender) => ({
      'your-name': whole(sender),
      'your-email': sender.email,
      'your-tel': sender.phone,
      'your-subject': 'Web enquiry',
      'your-message': sender.message,
      _place: 'f12-p7-o1',
      _version: '5.9',
    }),
    has: ['first', 'last', 'email', 'phone', 'message'],
  },
  {
    name: 'box_1 with labels in a map under form',
    body: (sender) => ({
      form: {
        title: 'Book a visit',
        fields: Object.fromEntries(
          byFact((fact, place) => [`box_${place + 1}`, { label: ENGLISH[fact], required: true }]),
        ),
      },
      entry: Object.fromEntries(byFact((fact, place) => [`box_${place + 1}`, sender[fact]])),
    }),
    asks: ENGLISH,
  },
  {
    name: 'name parts with a dot and number',
    body: (sender) => ({
      '11.3': sender.first,
      '11.6': sender.last,
      '2': sender.email,
      '3': sender.phone,
      '4': sender.company,
      '5': sender.country,
      '6': sender.role,
      '7': sender.message,
      form_id: '3',
      labels: {
        '11.3': 'First',
        '11.6': 'Last',
        '2': 'Email',
        '3': 'Phone',
        '4': 'Company',
        '5': 'Country',
        '6': 'Job title',
        '7': 'Message',
      },
    }),
    asks: { first: 'First', last: 'Last', email: 'Email', message: 'Message' },
  },
  {
    name: 'pairs of lists',
    body: (sender) => ({ form: 'Contact', answers: byFact((fact) => [ENGLISH[fact], sender[fact]]) }),
    asks: ENGLISH,
  },
  {
    name: 'key and string values of a cloud',
    body: (sender, index) => ({
      eventName: 'INSERT',
      eventID: hex(index),
      item: {
        pk: { S: `enquiry#${index}` },
        givenName: { S: sender.first },
        familyName: { S: sender.last },
        emailAddress: { S: sender.email },
        phone: { S: sender.phone },
        organisation: { S: sender.company },
        country: { S: sender.country },
        jobTitle: { S: sender.role },
        comment: { S: sender.message },
      },
    }),
  },
  {
    name: 'columns of an advertisement',
    body: (sender, index) => ({
      lead_ref: hex(index),
      campaign: 20018,
      trial: false,
      columns: [
        { code: 'FULL_NAME', caption: 'Full name', text: whole(sender) },
        { code: 'EMAIL', caption: 'User email', text: sender.email },
        { code: 'PHONE_NUMBER', caption: 'User phone', text: sender.phone },
        { code: 'COMPANY_NAME', caption: 'Company name', text: sender.company },
      ],
    }),
    has: ['first', 'last', 'email', 'phone', 'company'],
  },
  {
    name: 'data with lists of values',
    body: (sender, index) => ({
      created_time: at(index),
      id: `8812${index}`,
      advert: 'Spring frames',
      form_id: '7741',
      filled_in: [
        { name: 'first_name', values: [sender.first] },
        { name: 'last_name', values: [sender.last] },
        { name: 'work_email', values: [sender.email] },
        { name: 'phone_number', values: [sender.phone] },
        { name: 'company_name', values: [sender.company] },
        { name: 'job_title', values: [sender.role] },
      ],
    }),
    has: ['first', 'last', 'email', 'phone', 'company', 'role'],
  },
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
