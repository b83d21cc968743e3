/** Lengths at which work is timed: one, and four times as much. */
const SHORT = 5_000;
const LONG = 4 * SHORT;
/** Linear work takes four times as long for four times as much, and quadratic work sixteen times. */
const MOST_GROWTH = 9;
/** Work that is faster than so many passes over the text is too fast to measure, and fast enough. */
const FAST_ENOUGH_PASSES = 60;
const TRIES = 4;

/** One text of a character class repeated, as long as it is told to be. */
export interface Attack {
  name: string;
  text: (length: number) => string;
}

const repeat = (unit: string, begin = '', end = ''): Attack => ({
  name: JSON.stringify(`${begin}${unit}…${end}`),
  text: (length) => begin + unit.repeat(Math.ceil(length / unit.length)) + end,
});

/** Long runs of each class of characters, alone, with what does not fit at the end, and in the pairs that patterns look for. */
export const ATTACKS: readonly Attack[] = [
  ...['a', 'A', '7', ' ', '\n', '\t', '\u00a0', '\u200b', '.', ',', ';', ':', '-', '_', '@', '<', '>', '"', "'"].map(
    (unit) => repeat(unit, '', '!'),
  ),
  ...['(', ')', '[', ']', '{', '}', '/', '\\', '=', '&', '%', '#', '?', '+', '*', '|', '$', '€', '^', '~'].map((unit) =>
    repeat(unit, '', ' a'),
  ),
  ...['é', 'ß', 'İ', '王', '가', 'ا', '\u0301', '👩‍🌾', '\ud800'].map((unit) => repeat(unit)),
  ...[
    '<a',
    '</',
    'a@',
    'a.',
    '.a',
    '1,',
    '1 ',
    '1.',
    'a ',
    'A a ',
    '; ',
    '\r\n',
    '="',
    '=0',
    '%4',
    '{{',
    '[url',
    'a,',
  ].map((unit) => repeat(unit, '', '!')),
  ...['dr ', 'jr, ', 'http://', 'www.', 'x/', '+44', 'GBP', '[0]', '["', '\\"', '{"a":', '[', 'a=b&'].map((unit) =>
    repeat(unit, '', '!'),
  ),
  repeat(' ', '1', 'x'),
  repeat(' ', '£', 'x'),
  repeat('.', 'www', ' x'),
  repeat('.', 'a@', ' x'),
  repeat(' ', 'a', 'b'),
  repeat(';', 'BEGIN:VCARD\nN', '\nEND:VCARD'),
  repeat('TEL:1\n', 'BEGIN:VCARD\n', 'END:VCARD'),
  repeat('=\n', 'BEGIN:VCARD\nNOTE;ENCODING=QUOTED-PRINTABLE:a', 'END:VCARD'),
  repeat(' a\n', 'BEGIN:VCARD\nNOTE:a\n', 'END:VCARD'),
];

/** The attacks with their texts, and the time below which work on the longer one is fast enough. */
const PREPARED = ATTACKS.map(({ name, text }) => {
  const [short, long] = [text(SHORT), text(LONG)];
  const pass = Math.min(...Array.from({ length: 5 }, () => timeOf(() => long.split('').join(''))));
  return { name, short, long, fast: pass * FAST_ENOUGH_PASSES };
});

/**
 * Returns the attacks for which work takes much more than four times as long for a text four times as long. Noise makes
 * single runs slower, never faster, so the best of several counts.
 */
export function slowAttacks(work: (text: string) => unknown): string[] {
  return PREPARED.filter((attack) => growsTooFast(work, attack)).map(({ name }) => name);
}

function growsTooFast(work: (text: string) => unknown, { short, long, fast }: (typeof PREPARED)[number]): boolean {
  for (let turn = 0; turn < TRIES; turn += 1) {
    const whole = timeOf(() => work(long));
    if (whole <= fast || whole / timeOf(() => work(short)) <= MOST_GROWTH) return false;
  }
  return true;
}

function timeOf(work: () => unknown): number {
  const begin = performance.now();
  work();
  return performance.now() - begin;
}
