import type { RecordKind } from '@haycart/core';
import { Download } from 'lucide-react';
import { query } from '../api/client';
import { PLURALS } from '../api/record-kinds';
import { Button } from '../components/button';
import { Popover } from '../components/popover';

const FORMATS: [format: string, name: string, about: string][] = [
  ['csv', 'CSV', 'the columns shown, for any spreadsheet'],
  ['xlsx', 'XLSX', 'the columns shown, numbers as numbers'],
  ['jsonl', 'JSON Lines', 'all of each record, for scripts'],
  ['vcf', 'vCard', 'for address books'],
];

/** Takes what a list shows away as a file. */
export function TakeAway({
  kind,
  wish,
  columns,
}: {
  kind: RecordKind;
  wish: Record<string, string | undefined>;
  columns: readonly string[];
}) {
  return (
    <Popover
      label="Take away"
      align="end"
      trigger={
        <Button className="!h-7">
          <Download className="size-3.5" aria-hidden /> Take away
        </Button>
      }
    >
      <ul>
        {FORMATS.filter(([format]) => format !== 'vcf' || kind === 'contact').map(([format, name, about]) => (
          <li key={format}>
            <a
              href={`/api/v1/${PLURALS[kind]}/export${query({ ...wish, format, columns: columns.join(',') })}`}
              download
              className="flex items-baseline gap-2 rounded px-2 py-1 hover:bg-hair"
            >
              <b className="w-20 flex-none font-semibold">{name}</b>
              <span className="text-small text-muted">{about}</span>
            </a>
          </li>
        ))}
      </ul>
    </Popover>
  );
}
