import { ENGLISH, at, byFact, hex, uuid, whole, type PayloadStyle } from './payload-style';

/** Answers in lists, columns and pairs. */
export const LISTS: readonly Omit<PayloadStyle, 'heldOut'>[] = [
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
];
