import type { DoneEdit, RecordLinkShape, RecordShape, SearchHit } from '@haycart/api';
import type { FieldDefinition, RecordKind } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { Link2, Plus, X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../api/client';
import { useRecordEdit } from '../api/edits';
import { searchQuery } from '../api/queries';
import { useWords } from '../api/words';
import { PLURALS } from '../api/record-kinds';
import { Button, IconButton } from '../components/button';
import { recordNumber } from '../components/format';
import { Popover } from '../components/popover';
import { Mono, Sheet } from '../components/sheet';
import { NewRecord } from './new-record';

/** The records that belong to this one, with the means to link others and to make a deal for it. */
export function Links({ record, fields }: { record: RecordShape; fields: readonly FieldDefinition[] }) {
  const words = useWords();
  const [making, setMaking] = useState(false);
  const on = `/${PLURALS[record.kind]}/${record.id}/links`;
  const change = useRecordEdit((wish: { add?: string[]; remove?: string[] }) => call<DoneEdit>('POST', on, wish));
  const links = Object.entries(record.links).flatMap(([key, found]) => (key === 'company' ? [] : found));
  return (
    <Sheet className="px-4 py-3">
      <header className="mb-1 flex items-center gap-2">
        <h2 className="mr-auto text-base">Linked</h2>
        {record.kind === 'contact' && (
          <Button className="!h-7" onClick={() => setMaking(true)}>
            <Plus className="size-3.5" aria-hidden /> {words.One('deal')}
          </Button>
        )}
        <LinkTo record={record} linked={links} link={(id) => change.mutate({ add: [id] })} />
      </header>
      {links.length ? (
        <ul>
          {links.map(({ id, kind, number, name }) => (
            <li key={id} className="flex items-center gap-3 border-b border-hair py-0.5 last:border-b-0">
              <span className="w-[84px] flex-none text-small text-muted">{words.One(kind)}</span>
              <Link
                to={`/records/${PLURALS[kind]}/${id}`}
                className="min-w-0 flex-1 truncate text-slate hover:underline"
              >
                {name}
              </Link>
              <Mono className="text-muted">{recordNumber(kind, number)}</Mono>
              <IconButton
                label={`Unlink ${name}`}
                className="!size-7 text-muted"
                disabled={change.isPending}
                onClick={() => change.mutate({ remove: [id] })}
              >
                <X className="size-3.5" aria-hidden />
              </IconButton>
            </li>
          ))}
        </ul>
      ) : (
        <p className="text-small text-muted">Nothing is linked yet.</p>
      )}
      {making && (
        <NewRecord
          kind="deal"
          fields={fields.filter((field) => field.record === 'deal')}
          links={[record.id, ...(record.links.company ?? []).map(({ id }) => id)]}
          close={() => setMaking(false)}
        />
      )}
    </Sheet>
  );
}

function LinkTo({
  record,
  linked,
  link,
}: {
  record: RecordShape;
  linked: readonly RecordLinkShape[];
  link: (id: string) => void;
}) {
  const words = useWords();
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const hits = useQuery(searchQuery(text));
  const isRecord = (hit: SearchHit): hit is SearchHit & { kind: RecordKind } => hit.kind in PLURALS;
  const found = (hits.data ?? []).filter(
    (hit) => isRecord(hit) && hit.id !== record.id && !linked.some(({ id }) => id === hit.id),
  );
  return (
    <Popover
      label="Link to a record"
      align="end"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <Button className="!h-7">
          <Link2 className="size-3.5" aria-hidden /> Link
        </Button>
      }
    >
      <input
        autoFocus
        aria-label="Find a record to link"
        placeholder="A name, an e-mail, C-1094 …"
        value={text}
        onChange={({ target }) => setText(target.value)}
        className="h-8 w-full rounded border-[1.5px] border-line bg-sheet px-2"
      />
      <ul className="mt-1">
        {found.slice(0, 12).map((hit) => (
          <li key={hit.id}>
            <button
              type="button"
              className="flex h-8 w-full items-center gap-2 rounded px-2 text-left hover:bg-hair"
              onClick={() => {
                link(hit.id);
                setText('');
                setOpen(false);
              }}
            >
              <span className="w-20 flex-none text-small text-muted">{words.One(hit.kind as RecordKind)}</span>
              <span className="min-w-0 truncate">{hit.name}</span>
            </button>
          </li>
        ))}
      </ul>
      {text.trim() !== '' && hits.isSuccess && !found.length && (
        <p className="px-2 py-2 text-small text-muted">No other record is called “{text}”.</p>
      )}
    </Popover>
  );
}
