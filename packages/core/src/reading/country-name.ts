/** The languages in which countries are known by name. */
const LANGUAGES = ['en', 'nl', 'de', 'fr', 'es', 'it', 'pt', 'da', 'sv', 'nb', 'fi', 'pl'];

/** What else people call countries: short names, parts, former names, and the codes of three letters that are seen most. */
const ALSO: Record<string, string> = {
  GB: 'uk u.k. england scotland wales britain great-britain northern-ireland united-kingdom-of-great-britain-and-northern-ireland gbr groot-brittannie engeland schotland grossbritannien angleterre inglaterra inghilterra',
  US: 'usa u.s. u.s.a. america united-states-of-america the-states estados-unidos-de-america',
  NL: 'holland nld the-netherlands',
  DE: 'deu ger federal-republic-of-germany brd',
  CZ: 'czech-republic cze tsjechie tschechien',
  IE: 'eire irl republic-of-ireland',
  AE: 'uae u.a.e. emirates',
  KR: 'korea republic-of-korea kor',
  RU: 'russian-federation rus',
  FR: 'fra',
  BE: 'bel',
  ES: 'esp',
  IT: 'ita',
  CA: 'can',
  AU: 'aus',
  DK: 'dnk',
  SE: 'swe',
  NO: 'nor',
  FI: 'fin',
  PL: 'pol',
  AT: 'aut',
  CH: 'che suisse svizzera',
  LU: 'lux',
  PT: 'prt',
  JP: 'jpn',
  CN: 'chn prc peoples-republic-of-china mainland-china',
  TR: 'turkey tur',
  CI: 'ivory-coast',
  MK: 'macedonia',
};

let byName: ReadonlyMap<string, string> | undefined;

/**
 * The country (ISO 3166-1 alpha-2) that a text names, in any of a dozen languages or by its code; `null` where it names
 * none. Capitals, marks and dots do not count.
 *
 * @example countryNamed('Pays-Bas') // 'NL'
 */
export function countryNamed(text: string): string | null {
  byName ??= allNames();
  return byName.get(folded(text)) ?? null;
}

function allNames(): Map<string, string> {
  const names = new Map<string, string>();
  const tongues = LANGUAGES.flatMap((language) =>
    (['long', 'short'] as const).map((style) => new Intl.DisplayNames([language], { type: 'region', style })),
  );
  for (const code of countryCodes()) {
    names.set(code.toLowerCase(), code);
    for (const tongue of tongues) {
      const name = folded(tongue.of(code) ?? '');
      // Two letters are a code, and no abbreviation of a name (`É.-U.`).
      if (name.length > 2 && !names.has(name)) names.set(name, code);
    }
  }
  for (const [code, also] of Object.entries(ALSO)) for (const name of also.split(' ')) names.set(folded(name), code);
  return names;
}

/** The codes that have a name; what has none is no country (`ZZ` and the like are named otherwise). */
function countryCodes(): string[] {
  const known = new Intl.DisplayNames(['en'], { type: 'region', fallback: 'none' });
  const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
  const notCountries = new Set([
    'EU',
    'EZ',
    'UN',
    'QO',
    'XA',
    'XB',
    'ZZ',
    'UK',
    'DD',
    'FX',
    'SU',
    'YU',
    'TP',
    'NT',
    'CS',
    'AN',
    'BU',
    'ZR',
  ]);
  return letters
    .flatMap((a) => letters.map((b) => a + b))
    .filter((code) => !notCountries.has(code) && known.of(code) !== undefined);
}

function folded(text: string): string {
  return text
    .slice(0, 200)
    .normalize('NFKD')
    .toLowerCase()
    .replace(/^the\s+/, '')
    .replace(/[^\p{L}\p{Nd}]/gu, '');
}
