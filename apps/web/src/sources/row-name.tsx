import type { SourcesReport } from '@haycart/api';
import type { RemovalShare } from '@haycart/core';
import { ChevronRight } from 'lucide-react';
import { percent } from '../components/format';
import { StateShape } from '../components/state-shape';
import { channelWord } from './channel-word';
import { opens, ROW_PARTS, type SourceLine } from './source-tree';

/** What campaigns, and values of what first rows go by, are called. */
export type RowNames = Pick<SourcesReport, 'campaigns' | 'split'>;

/** What a row is called by its last part. */
export function rowWord({ part, name }: Pick<SourceLine, 'part' | 'name'>, { campaigns, split }: RowNames): string {
  switch (part) {
    case 'splitValue':
      return split && Object.hasOwn(split.names, name)
        ? split.names[name]!
        : name || `Without ${split?.label.toLowerCase() ?? 'a value'}`;
    case 'channel':
      return channelWord(name);
    case 'campaign':
      return campaigns.find(({ code }) => code === name)?.name ?? (name || 'without a campaign');
    case 'page':
      return name.replace(/^https?:\/\//, '') || 'without a page';
    default:
      return name || 'without a name';
  }
}

/** The same with what it is in. */
export function rowWords({ row }: SourceLine, names: RowNames): string {
  return ROW_PARTS.flatMap((part) => (row[part] === undefined ? [] : [rowWord({ part, name: row[part] }, names)])).join(
    ', ',
  );
}

/** What a row of the table is called, with the way to what is below it. */
export function RowName({
  line,
  share,
  names,
  isOpen,
  toggle,
}: {
  line: SourceLine;
  share: RemovalShare | undefined;
  names: RowNames;
  isOpen: boolean;
  toggle: () => void;
}) {
  const { depth, part, name } = line;
  const isUnknown = part === 'channel' && name === '';
  const words = (
    <span
      title={part === 'page' ? name : undefined}
      className={`truncate ${depth === 0 ? 'font-semibold' : ''} ${name === '' && depth > 0 ? 'text-muted' : ''}`}
    >
      {isUnknown && <StateShape state="held" />} {rowWord(line, names)}
      {share && (
        <span className="ml-1.5 font-normal text-muted">
          {percent(share.share)}, between {percent(share.low)} and {percent(share.high)}
        </span>
      )}
      {isUnknown && <span className="ml-1.5 font-normal text-muted">no known touch</span>}
    </span>
  );
  return (
    <span className="flex items-center" style={{ paddingLeft: depth * 20 }}>
      {opens(line) && !isUnknown ? (
        <button
          type="button"
          aria-expanded={isOpen}
          className="flex min-w-0 items-center gap-1 hover:underline"
          onClick={toggle}
        >
          <ChevronRight className={`size-3.5 flex-none ${isOpen ? 'rotate-90' : ''}`} aria-hidden />
          {words}
        </button>
      ) : (
        <span className="flex min-w-0 pl-[18px]">{words}</span>
      )}
    </span>
  );
}
