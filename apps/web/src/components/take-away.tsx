import { Download } from 'lucide-react';
import { query } from '../api/client';
import { Button } from './button';
import { Popover } from './popover';

/** A kind of file that a list can be taken away as. */
export interface TakeAwayFormat {
  format: 'csv' | 'xlsx' | 'jsonl' | 'vcf';
  name: string;
  about: string;
}

/** Takes what a list shows away as a file. */
export function TakeAway({
  path,
  wish,
  formats,
  className = '!h-7',
}: {
  /** Of the list, below the API. */
  path: string;
  /** What the list is narrowed and ordered by. */
  wish: Record<string, string | undefined>;
  formats: readonly TakeAwayFormat[];
  /** Its height, where it stands among others. */
  className?: string;
}) {
  return (
    <Popover
      label="Export"
      align="end"
      trigger={
        <Button className={className}>
          <Download className="size-3.5" aria-hidden /> Export
        </Button>
      }
    >
      <ul>
        {formats.map(({ format, name, about }) => (
          <li key={format}>
            <a
              href={`/api/v1${path}/export${query({ ...wish, format })}`}
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
