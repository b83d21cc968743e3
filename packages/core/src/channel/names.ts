import type { ChannelRules } from '../source/channel-rules';

/** A name without capitals, accents, spaces and punctuation, for comparing spellings. */
export function plainName(name: string): string {
  return name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}\p{Nd}]+/gu, '');
}

const joined = new WeakMap<ChannelRules, ReadonlyMap<string, string>>();

/** The name that a source is joined to, or its own name. */
export function joinedName(source: string, rules: ChannelRules): string {
  return spellingsOf(rules).get(plainName(source)) ?? source;
}

/** Whether a person said that two names are not one source. */
export function isKeptApart(one: string, other: string, { apart = [] }: ChannelRules): boolean {
  const [plain, otherPlain] = [plainName(one), plainName(other)];
  return apart.some(({ name, spellings }) => {
    const kept = plainName(name);
    return spellings
      .map(plainName)
      .some((spelling) => (kept === plain && spelling === otherPlain) || (kept === otherPlain && spelling === plain));
  });
}

function spellingsOf(rules: ChannelRules): ReadonlyMap<string, string> {
  const before = joined.get(rules);
  if (before) return before;
  const made = new Map(
    rules.names.flatMap(({ name, spellings }) => [name, ...spellings].map((spelling) => [plainName(spelling), name])),
  );
  joined.set(rules, made);
  return made;
}

/** The codes of campaigns, by each of their spellings as `plainName` gives it. */
export type CampaignCodes = Readonly<Record<string, string>>;

/** Builds the lookup of campaign codes by spelling. */
export function campaignCodes(campaigns: readonly { code: string; spellings: readonly string[] }[]): CampaignCodes {
  return Object.fromEntries(
    campaigns.flatMap(({ code, spellings }) => [code, ...spellings].map((spelling) => [plainName(spelling), code])),
  );
}

/** The code of the campaign that a link names; the text itself when the register does not have it. */
export function registeredCode(said: string | undefined, codes: CampaignCodes = {}): string | undefined {
  if (!said) return undefined;
  const plain = plainName(said);
  return Object.hasOwn(codes, plain) ? codes[plain] : said;
}
