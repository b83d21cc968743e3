/** Somebody made up who sends an enquiry, with what a right first draft makes of it. */
export interface Sender {
  first: string;
  last: string;
  email: string;
  /** As it is typed, and as it is kept (E.164). */
  phone: string;
  e164: string;
  company: string;
  /** ISO 3166-1 alpha-2. */
  country: string;
  role: string;
  message: string;
}

const person = (
  [first, last, email, phone, e164]: [string, string, string, string, string],
  [company, country, role, message]: [string, string, string, string],
): Sender => ({ first, last, email, phone, e164, company, country, role, message });

/** Who sends to each intake of the bench: eight people of several countries. */
export const SENDERS: readonly Sender[] = [
  person(
    ['Tamsin', 'Orrell', 'tamsin.orrell@gorsehill.example', '+44 20 7946 0018', '+442079460018'],
    ['Gorsehill Academy', 'GB', 'Bursar', 'We would like to see two bays before the summer term.'],
  ),
  person(
    ['Joost', 'Verkuil', 'j.verkuil@tuinwerk.example', '+31 20 794 6001', '+31207946001'],
    ['Tuinwerk Oost', 'NL', 'Owner', 'Our beds freeze each March. What would you put over them?'],
  ),
  person(
    ['Maeve', 'Costigan', 'maeve@costigan-growers.example', '+353 20 912 3456', '+353209123456'],
    ['Costigan Growers', 'IE', 'Grower', 'Call me after six, I am outside until then.'],
  ),
  person(
    ['Anneke', 'Holm', 'anneke.holm@lerchenfeld.example', '+49 30 2394 5018', '+493023945018'],
    ['Lerchenfeld Schule', 'DE', 'Head of science', 'Is the frame safe in snow?\nWe are at 900 metres.'],
  ),
  person(
    ['Beatriz', 'Saldaña', 'bsaldana@viveropinar.example', '+34 912 345 018', '+34912345018'],
    [
      'Vivero Pinar',
      'ES',
      'Buyer',
      'Please send prices for four small houses, with shading and delivery to the north.',
    ],
  ),
  person(
    ['Oskar', 'Lindqvist', 'oskar@lindqvistplant.example', '+46 8 123 450 18', '+46812345018'],
    ['Lindqvist Plant', 'SE', 'Site manager', 'Looking for something we can take down in winter.'],
  ),
  person(
    ['Paweł', 'Dudek', 'p.dudek@zielonydom.example', '+48 22 345 60 18', '+48223456018'],
    ['Zielony Dom', 'PL', 'Director', 'Can your people build in October?'],
  ),
  person(
    ['Chiara', 'Vanzetti', 'chiara.vanzetti@orticola.example', '+39 02 3456 7018', '+390234567018'],
    [
      'Orticola Vanzetti',
      'IT',
      'Estates manager',
      'A colleague of mine saw yours in Leeds and was full of praise for the vents.',
    ],
  ),
];
