import { foldWords } from './fold-text';

/**
 * Words that tell the legal form of a company (ISO 20275 lists them), by themselves or written with points: they differ
 * between a form and a register without the company being another.
 */
const LEGAL_FORMS = new Set(
  [
    'ltd limited plc llp llc lp inc incorporated corp corporation co company cic cio pllc pc unltd',
    'gmbh mbh ag kg kgaa ohg gbr ug ek ev eg se haftungsbeschrankt gesellschaft',
    'bv nv vof cv maatschap stichting bvba sprl cvba vzw asbl',
    'sa sas sasu sarl eurl snc sca scop gie cie',
    'srl spa sapa snc sas soc societa cooperativa coop',
    'sl slu sau sociedad limitada anonima ltda eireli me cia',
    'ab hb kb as asa ans da enk aps ivs is oy oyj ay ky ry hf ehf',
    'spzoo zoo sp spj sk spk sro as vos ks doo dd ad ood eood kft bt zrt nyrt ooo oao zao pao ip tov srl',
    'pty pte pvt sdn bhd berhad kk gk godo kaisha kabushiki tbk pt cv',
    'dac clg uc teoranta teo',
  ]
    .join(' ')
    .split(' '),
);
/** Said or left out as people like. */
const UNSAID = new Set('the and und en et y e i og och group holding holdings international intl'.split(' '));

/** Legal forms that are several words once the points are gone: `Sp. z o.o.`, `S.à r.l.`, `GmbH & Co. KG`. */
const SPELLED = [
  /\bsp z o ?o\b/g,
  /\bs a r l\b/g,
  /\bs r l\b/g,
  /\bs p a\b/g,
  /\bs a s\b/g,
  /\bs l u?\b/g,
  /\bb v\b/g,
  /\bn v\b/g,
  /\bs a\b/g,
  /\bl l c\b/g,
  /\bl l p\b/g,
  /\bp l c\b/g,
  /\bg m b h\b/g,
  /\bd o o\b/g,
  /\bs r o\b/g,
];

/** A company's name as it is compared. */
export interface CompanyNameForm {
  /** The words that tell it from others, in their order. */
  words: readonly string[];
  /** The same as one text. */
  text: string;
}

/**
 * The part of a company's name that tells it from others: without its legal form, punctuation, “the” and “&”.
 *
 * @example companyNameForm('The Fennwick Nursery & Sons, Ltd.').text // 'fennwick nursery sons'
 */
export function companyNameForm(name: string): CompanyNameForm | null {
  const all = foldWords(name);
  if (!all.length) return null;
  let text = all.join(' ');
  for (const form of SPELLED) text = text.replace(form, ' ');
  const spelled = text.split(' ').filter(Boolean);
  const words = spelled.filter((word) => !LEGAL_FORMS.has(word) && !UNSAID.has(word));
  const kept = words.length ? words : spelled.length ? spelled : all;
  return { words: kept, text: kept.join(' ') };
}
