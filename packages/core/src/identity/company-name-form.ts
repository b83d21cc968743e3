import { foldWords } from '../reading/fold-text';

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
    'dac clg uc teoranta teo unipersonale lda sia uab ehf oou',
  ]
    .join(' ')
    .split(' '),
);
/** Longer texts are no names. */
const LONGEST = 300;
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

/** The same, but only at the end: elsewhere they may be words or initials. */
const SPELLED_AT_END = /(?<=[a-z0-9]{2})\s(?:e k|a s|a e|s a de c v|s de r l de c v|d d|k d a a|o u|ou)$/;
/** Forms that stand before the name too. Others that do are a name's own: `AS Roma`, `AG Glas`. */
const LEADING = new Set('ooo oao zao pao tov pt sia uab cv ud'.split(' '));
/** Forms in scripts without spaces. */
const EASTERN =
  /株式会社|有限会社|合同会社|合資会社|股份有限公司|有限责任公司|有限責任公司|有限公司|주식회사|유한회사|\(주\)|㈜|㈱|[(（]株[)）]/g;

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
  const all = foldWords(name.slice(0, LONGEST).replace(EASTERN, ' '));
  if (!all.length) return foldedAlone(name);
  const ended = all.join(' ').replace(SPELLED_AT_END, '');
  let text = ended;
  for (const form of SPELLED) text = text.replace(form, ' ');
  const spelled = text.split(' ').filter(Boolean);
  const isForm = (word: string, index: number) => LEGAL_FORMS.has(word) && (index > 0 || LEADING.has(word));
  const words = spelled.filter((word, index) => !isForm(word, index) && !UNSAID.has(word));
  const kept = words.length ? words : spelled.length ? spelled : all;
  return { words: kept, text: kept.join(' ') };
}

/** A name that is nothing but a legal form is itself. */
function foldedAlone(name: string): CompanyNameForm | null {
  const words = foldWords(name);
  return words.length ? { words, text: words.join(' ') } : null;
}
