/** Made-up names and words. Nobody here exists. */
export const FIRST_NAMES =
  'Maren Idris Odile Joost Siân Theo Hetty Bram Lena Åsa Callum Priya Wanjiru Tomos Ruairi Greta Anneke Felix Noor Imogen Kofi Saoirse Dirk Marlies Jonas Heike Pascal Amélie Farid Yusuf Mei Hana Rowan Bryony Alban Corin Delyth Eilidh Fenna Gijs Ingrid Jutta Kaito Leontien Morag Niamh Orla Piers Quentin Rhona Sander Tamsin Ulla Viggo Wilma Xander Ysolde Zadie'.split(
    ' ',
  );
export const LAST_NAMES =
  'Oduya Prothero Blackwood Marsh Fournier Vos Aust Pell Lindqvist Kirkbride Hartley Dunmore Moss Carrow Tarn Brannoc Oakmere Ravenscar Alder Brook Northgate Hollin Glenardle Weir Thackeray Penhallow Skelwith Yarrow Birkett Cowgill Dalzell Eskdale Fairholm Garrick Hebden Ingleby Jarrow Keswick Langdale Mardale Netherby Orrest Patterdale Rydal Staveley Troutbeck Ullock Winster'.split(
    ' ',
  );
export const DUTCH_LAST_NAMES =
  'de Ruiter|van der Meer|van den Berg|de Wit|ter Horst|Kwekerij|van Dijk|den Ouden'.split('|');
const PLACES =
  'Fennwick Brannoc Kirkbride Oakmere Pellrowan Lindhaven Tarnside Quayford Aldermoor Ravensholt Hollinbeck Ardleigh Vosmeer Zwaanburg Moorkamp Lindental Cedarvale Maplewick Stonecroft Withybrook Larkhill Thornby Ashcombe Beckfoot Silverdale Greywell Hawkshaw Ironbridge Juniper Kestrelby'.split(
    ' ',
  );
const KINDS: [string, string][] = [
  ['Academy', 'academy'],
  ['Botanic Garden', 'botanic'],
  ['Growers', 'growers'],
  ['Garden Centre', 'garden'],
  ['Seed Lab', 'seedlab'],
  ['Nurseries', 'nurseries'],
  ['School', 'school'],
  ['Tuinen', 'tuinen'],
  ['Gärtnerei', 'gaertnerei'],
  ['Estate', 'estate'],
];

export interface Organisation {
  name: string;
  domain: string;
}

/** Every organisation that the demo knows: about 300, each with a domain that nobody can own. */
export const ORGANISATIONS: readonly Organisation[] = PLACES.flatMap((place) =>
  KINDS.map(([kind, word]) => ({ name: `${place} ${kind}`, domain: `${place.toLowerCase()}-${word}.example` })),
);

export const MESSAGES = [
  'We would like a glasshouse for the south bed behind the dining hall, ideally before the autumn term.',
  'Our old one lost forty panes in the storm. Could somebody come and look at the frame?',
  'Two bays for seed trials, heated, with shading. What would that come to?',
  'Saw you at the spring show. Please call after four, I am in the potting shed until then.',
  'Is planning permission needed for a domed house next to a listed wall?\n\nWe have drawings if that helps.',
  'Tomatoes and peppers, all year round. Ventilation matters more to us than looks.',
  'We look after twelve allotments and want one shared house.',
  'Bench heights: can they be set for wheelchair users?',
];

export const CAMPAIGNS = [
  { utm_source: 'spring-newsletter', utm_medium: 'email', utm_campaign: 'spring-2026' },
  { utm_source: 'show-stand', utm_medium: 'event', utm_campaign: 'spring-show' },
  { utm_source: 'growers-weekly', utm_medium: 'display', utm_campaign: 'seed-season' },
  // The same partner as others write it, and a link that nobody checked.
  { utm_source: 'Growers Weekly', utm_medium: 'display', utm_campaign: 'seed-season' },
  { utm_source: 'GW-ads', utm_medium: 'Display', utm_campaign: 'seed-season' },
  { utm_source: 'spring-newsletter', utm_medium: 'email', utm_campaign: 'Sprng 2026' },
  { utm_source: 'school-gardens', utm_medium: 'partner', utm_campaign: 'teaching-gardens' },
] as const;

export const REFERRERS = [
  'https://search.example/?q=modular+glasshouse',
  'https://allotment-forum.example/t/4411',
  'https://teachers.example.org/resources',
];
export const PAGES = ['/glasshouses/schools', '/glasshouses/growers', '/glasshouses/botanic', '/prices', '/'];
