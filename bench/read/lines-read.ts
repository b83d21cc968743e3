import {
  companyNameForm,
  foldWords,
  normalEmail,
  splitPersonName,
  workOutValue,
  type FinisherContext,
} from '@haycart/core';
import { LINES, type Line } from './lines';

/** How one line was read. */
export interface LineRead {
  line: Line;
  right: boolean;
  got: string;
}

/** Reads each line by its kind, and compares it with what a careful person makes of it. */
export function readLines(): LineRead[] {
  return LINES.map((line) => {
    const got = readings[line.kind](line.text);
    // Several ways to write a name in Latin letters are right.
    const plain = (text: string) => (line.kind === 'company' ? foldWords(text).join(' ') : text);
    return { line, right: line.wanted.split('|').some((wanted) => plain(wanted) === got), got };
  });
}

const CONTEXT: FinisherContext = {
  defaultCountry: 'GB',
  defaultCurrency: 'GBP',
  answer: () => '',
  payload: {},
};

const readings: Record<Line['kind'], (text: string) => string> = {
  name: (text) => {
    const { given, family } = splitPersonName(text);
    return `${given} / ${family}`;
  },
  'e-mail': (text) => {
    const read = normalEmail(text);
    return read.ok ? read.email : '';
  },
  phone: (text) => workOutValue({ parts: [{ text }], finishers: [{ use: 'phone' }] }, () => text, CONTEXT).text,
  company: (text) => companyNameForm(text)?.text ?? '',
};
