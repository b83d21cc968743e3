import { BUILT_IN_FIELDS, type Destination } from '@haycart/core';
import { readFiles } from './read/files-read';
import { readLines } from './read/lines-read';
import { readStyles, type Share, type StyleRead } from './read/payloads-read';
import { report } from './support';

/** The share of the facts of first drafts that must be right, on styles that nothing was tuned on. */
const GOAL = 0.9;

const destination: Destination = {
  defaultCountry: 'GB',
  defaultCurrency: 'GBP',
  fields: [...BUILT_IN_FIELDS],
  pipelines: [
    {
      key: 'new-builds',
      name: 'New builds',
      record: 'deal',
      stages: [
        { key: 'enquiry', name: 'Enquiry', state: 'open' },
        { key: 'won', name: 'Won', state: 'won' },
      ],
    },
  ],
};

const read = readStyles(destination);
for (const { style, facts, missing, wrong } of read)
  if (process.env.HAYCART_BENCH_DETAILS && (!style.heldOut || process.env.HAYCART_BENCH_DETAILS === 'all'))
    console.log(
      `${facts.right}/${facts.of}  ${style.name}  missing: ${missing.join(' ')}  wrong: ${wrong.slice(0, 3).join('; ')}`,
    );

const rate = (shares: readonly Share[]) =>
  shares.reduce((sum, { right }) => sum + right, 0) /
  Math.max(
    1,
    shares.reduce((sum, { of }) => sum + of, 0),
  );
const figures: Record<string, number> = {};
for (const [name, styles] of Object.entries({
  'held out': read.filter(({ style }) => style.heldOut),
  tuned: read.filter(({ style }) => !style.heldOut),
}) as [string, StyleRead[]][]) {
  figures[`${name}: styles`] = styles.length;
  figures[`${name}: facts right`] = rate(styles.map(({ facts }) => facts));
  figures[`${name}: whole drafts right`] =
    styles.filter(({ missing, wrong }) => !missing.length && !wrong.length).length / styles.length;
  figures[`${name}: drafts with something wrong`] = styles.filter(({ wrong }) => wrong.length).length / styles.length;
  figures[`${name}: questions in the sender’s words`] = rate(styles.map(({ questions }) => questions));
}
const files = readFiles();
for (const { file, right, got } of files)
  if (process.env.HAYCART_BENCH_DETAILS && !right && (!file.heldOut || process.env.HAYCART_BENCH_DETAILS === 'all'))
    console.log(`file not right: ${file.name}: ${got.slice(0, 300)}`);
for (const [name, some] of Object.entries({
  'held out': files.filter(({ file }) => file.heldOut),
  tuned: files.filter(({ file }) => !file.heldOut),
})) {
  figures[`${name}: files`] = some.length;
  figures[`${name}: files right`] = some.filter(({ right }) => right).length / some.length;
}
const people = readLines();
for (const { line, right, got } of people)
  if (process.env.HAYCART_BENCH_DETAILS && !right && (!line.heldOut || process.env.HAYCART_BENCH_DETAILS === 'all'))
    console.log(`line not right: ${line.kind}: ${line.text} → ${got}, not ${line.wanted}`);
for (const [name, some] of Object.entries({
  'held out': people.filter(({ line }) => line.heldOut),
  tuned: people.filter(({ line }) => !line.heldOut),
})) {
  figures[`${name}: names, addresses, numbers and companies`] = some.length;
  figures[`${name}: lines right`] = some.filter(({ right }) => right).length / some.length;
}
const reached = figures['held out: facts right']!;
report({ bench: 'read', ratio: reached / GOAL, goal: GOAL, met: reached >= GOAL, figures });
