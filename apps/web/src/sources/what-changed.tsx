import type { SourceRow, SourcesReport } from '@haycart/api';
import { whatChanged, type ComparedSource } from '@haycart/core';
import { useWords } from '../api/words';
import { Sheet } from '../components/sheet';
import { rowWord } from './row-name';

/** The space between a currency and its amount, at which no line ends. */
const BEFORE_AMOUNT = /(?<=\p{Sc}|[A-Z]{3}) (?=\d)/gu;
const NOTHING = { won: 0, wonDeals: 0, submissions: 0 };

/** What changed against the period that is compared with, in sentences. */
export function WhatChanged({ report, before }: { report: SourcesReport; before: SourcesReport }) {
  const words = useWords();
  const dealWords = { one: words.one('deal'), many: words.many('deal') };
  const sentences = whatChanged(compared(report, before), { currency: report.currency, dealWords });
  if (!sentences.length) return null;
  return (
    <Sheet className="px-3.5 py-2.5 lg:w-[340px] lg:flex-none">
      <h2 className="text-base leading-7">What changed</h2>
      <ul className="mt-1 flex flex-col gap-2">
        {sentences.map((sentence) => (
          <li key={sentence} className="border-t border-hair pt-2 leading-5">
            {sentence.replaceAll(BEFORE_AMOUNT, '\u00a0')}
          </li>
        ))}
      </ul>
    </Sheet>
  );
}

/** The outermost rows of both reports side by side. */
function compared(report: SourcesReport, before: SourcesReport): ComparedSource[] {
  const part = report.split ? 'splitValue' : 'channel';
  const firstRows = ({ groups }: SourcesReport) =>
    new Map(
      groups.flatMap((row): [string, SourceRow][] => {
        const isFirst = report.split ? row.channel === undefined : row.source === undefined;
        return isFirst && row[part] !== undefined ? [[row[part], row]] : [];
      }),
    );
  const [now, then] = [firstRows(report), firstRows(before)];
  return [...new Set([...now.keys(), ...then.keys()])].map((name) => ({
    name: rowWord({ part, name }, report),
    now: now.get(name) ?? NOTHING,
    before: then.get(name) ?? NOTHING,
  }));
}
