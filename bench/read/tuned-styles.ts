import { ENGLISH, at, byFact, flat, form, hex, ids, short, uuid, whole, type PayloadStyle } from './payload-style';

/** Ways that reading was made for; what is right of them says little about strangers. */
export const TUNED: readonly Omit<PayloadStyle, 'heldOut'>[] = [
  {
    name: 'flat, short English keys',
    body: ({ first, last, email, phone, company, country, role, message }) =>
      form({ fname: first, lname: last, email, tel: phone, company, country, position: role, message }),
  },
  { name: 'questions as keys', body: flat(ENGLISH) },
  {
    name: 'a definition beside answers with a field each',
    body: (sender, index) => ({
      happened: 'answered',
      delivery: uuid(index),
      sheet: {
        of: 'x8Qd2p',
        token: hex(index),
        submitted_at: at(index),
        definition: {
          id: 'x8Qd2p',
          title: 'Contact',
          fields: byFact((fact) => ({ id: short[fact], title: ENGLISH[fact], type: 'short_text', ref: ids[fact] })),
        },
        answers: byFact((fact) => ({
          type: fact === 'email' ? 'email' : 'text',
          [fact === 'email' ? 'email' : 'text']: sender[fact],
          field: { id: short[fact], type: 'short_text', ref: ids[fact] },
        })),
      },
    }),
    asks: ENGLISH,
  },
  {
    name: 'answers by uuid beside a list of fields',
    body: (sender) => ({
      formTitle: 'Visit us',
      fields: byFact((fact) => ({ uuid: ids[fact], label: ENGLISH[fact] })),
      values: Object.fromEntries(byFact((fact) => [ids[fact], sender[fact]])),
    }),
    asks: ENGLISH,
  },
  {
    name: 'answers by id beside a map of labels',
    body: (sender) => ({
      data: Object.fromEntries(byFact((fact) => [short[fact], sender[fact]])),
      labels: Object.fromEntries(byFact((fact) => [short[fact], ENGLISH[fact]])),
    }),
    asks: ENGLISH,
  },
  {
    name: 'a header row and a value row',
    body: (sender) => ({
      sheet: 'Enquiries 2027',
      header: byFact((fact) => ENGLISH[fact]),
      row: byFact((fact) => sender[fact]),
    }),
    asks: ENGLISH,
  },
  {
    name: 'question as key, type and value below',
    body: (sender) => Object.fromEntries(byFact((fact) => [ENGLISH[fact], { type: 'text', value: sender[fact] }])),
    asks: ENGLISH,
  },
  {
    name: 'field[name] of a page',
    body: (sender) =>
      form({
        form_name: 'Contact',
        'field[first_name]': sender.first,
        'field[last_name]': sender.last,
        'field[email]': sender.email,
        'field[phone]': sender.phone,
        'field[company]': sender.company,
        'field[country]': sender.country,
        'field[job]': sender.role,
        'field[message]': sender.message,
      }),
  },
  {
    name: 'fields[id][value] of a page builder',
    body: (sender) =>
      form(
        Object.fromEntries([
          ['form[id]', 'a1b2'],
          ['form[name]', 'Contact'],
          ...byFact((fact) => [
            [`fields[${short[fact]}][id]`, short[fact]],
            [`fields[${short[fact]}][title]`, ENGLISH[fact]],
            [`fields[${short[fact]}][value]`, sender[fact]],
          ]).flat(),
        ]) as Record<string, string>,
      ),
    asks: ENGLISH,
  },
  {
    name: 'numbered questions with parts',
    body: (sender) =>
      form({
        submission_id: '5527718',
        form_no: '2100',
        ip: '203.0.113.9',
        'q3_name[first]': sender.first,
        'q3_name[last]': sender.last,
        q4_email: sender.email,
        'q5_phoneNumber[full]': sender.phone,
        q6_company: sender.company,
        q7_country: sender.country,
        q8_jobTitle: sender.role,
        q9_howCan: sender.message,
      }),
  },
  {
    name: 'the value under a type’s name',
    body: (sender) => ({
      answers: byFact((fact) => {
        const type = fact === 'email' ? 'email' : fact === 'phone' ? 'phone_number' : 'text';
        return { question: ENGLISH[fact], kind: type, [type]: sender[fact] };
      }),
    }),
    asks: ENGLISH,
  },
  {
    name: 'JSON text inside a form field',
    body: (sender) =>
      form({
        form_no: '77',
        posted: JSON.stringify({
          slug: 'submit/77',
          name: { first: sender.first, last: sender.last },
          email: sender.email,
          phone: sender.phone,
          company: sender.company,
          country: sender.country,
          jobTitle: sender.role,
          message: sender.message,
        }),
      }),
  },
  {
    name: 'ids of options, labels beside',
    body: (sender) => ({
      answers: byFact((fact) =>
        fact === 'country'
          ? {
              id: short[fact],
              label: ENGLISH[fact],
              value: `opt_${sender.country}`,
              options: ['GB', 'NL', 'IE', 'DE', 'ES', 'SE', 'PL', 'IT'].map((code) => ({
                id: `opt_${code}`,
                text: code,
              })),
            }
          : { id: short[fact], label: ENGLISH[fact], value: sender[fact] },
      ),
    }),
    asks: ENGLISH,
  },
  {
    name: 'one whole name',
    body: (sender) => ({ name: whole(sender), email: sender.email, msg: sender.message, phone_no: sender.phone }),
    has: ['first', 'last', 'email', 'phone', 'message'],
  },
  {
    name: 'sections with lists',
    body: (sender, index) => ({
      meta: { id: index, created: at(index), form: 'Contact' },
      sections: [
        {
          title: 'About you',
          answers: [
            { label: ENGLISH.first, value: sender.first },
            { label: ENGLISH.last, value: sender.last },
            { label: ENGLISH.email, value: sender.email },
            { label: ENGLISH.phone, value: sender.phone },
          ],
        },
        {
          title: 'Your place',
          answers: [
            { label: ENGLISH.company, value: sender.company },
            { label: ENGLISH.country, value: sender.country },
            { label: ENGLISH.role, value: sender.role },
            { label: ENGLISH.message, value: sender.message },
          ],
        },
      ],
    }),
    asks: ENGLISH,
  },
  {
    name: 'HTML in every answer',
    body: (sender) =>
      Object.fromEntries(
        byFact((fact) => [
          fact === 'first' ? 'first_name' : fact === 'last' ? 'last_name' : fact,
          `<p>${sender[fact].replaceAll('\n', '<br>')}</p>`,
        ]),
      ),
  },
  {
    name: 'lists of one value',
    body: (sender) => ({
      fields: {
        given_name: [sender.first],
        family_name: [sender.last],
        email: [sender.email],
        phone: [sender.phone],
        organisation: [sender.company],
        country: [sender.country],
        job_title: [sender.role],
        comments: [sender.message],
      },
    }),
  },
  {
    name: 'a long question of each field',
    body: (sender) => ({
      'What is your first name?': sender.first,
      'And your last name?': sender.last,
      'Which e-mail address may we write to?': sender.email,
      'On which number can we reach you?': sender.phone,
      'Which company or school do you work for?': sender.company,
      'In which country are you?': sender.country,
      'What is your job there?': sender.role,
      'Tell us about your project': sender.message,
    }),
  },
];
