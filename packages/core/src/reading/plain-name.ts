/**
 * A name without what is written in several ways: capitals, spaces, punctuation and accents. `Prénom` is `prenom`,
 * `E-Mail` is `email`.
 */
export function plainName(text: string): string {
  return withoutAccents(text).replace(/[^\p{L}\p{Nd}]+/gu, '');
}

/** The words of a name or a question, plain: `applicantFirst_name` is `applicant`, `first`, `name`. */
export function plainWords(text: string): string[] {
  const apart = text.replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2');
  return withoutAccents(apart)
    .split(/[^\p{L}\p{Nd}]+/u)
    .filter(Boolean);
}

function withoutAccents(text: string): string {
  return text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/\p{M}+/gu, '')
    .normalize('NFC')
    .replace(/ı/g, 'i')
    .replace(/ß/g, 'ss');
}
