import { useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { searchQuery } from '../api/queries';
import { useWords } from '../api/words';
import { Time } from '../components/time';

const PLACES = [
  ['Home', '/'],
  ['Intakes', '/intakes'],
  ['Submissions', '/submissions'],
  ['Failed submissions', '/submissions?outcome=failed'],
  ['Routes', '/routes'],
  ['Contacts', '/records/contacts'],
  ['Companies', '/records/companies'],
  ['Leads', '/records/leads'],
  ['Deleted records', '/records/deleted/contacts'],
  ['Pipeline', '/pipeline'],
  ['Set up pipelines and stages', '/set-up/pipelines'],
  ['Set up fields', '/set-up/fields'],
  ['Set up people', '/set-up/people'],
  ['Set up tokens', '/set-up/tokens'],
  ['Your password and sessions', '/account'],
  ['Set up teams', '/set-up/teams'],
  ['Set up lists', '/set-up/lists'],
  ['Set up tags', '/set-up/tags'],
  ['Set up the workspace and exchange rates', '/set-up/workspace'],
  ['Setup check', '/set-up/ready'],
] as const;

const KIND_PATHS: Record<string, string> = {
  contact: '/records/contacts/',
  company: '/records/companies/',
  lead: '/records/leads/',
  deal: '/records/deals/',
  intake: '/intakes/',
  route: '/routes/',
  submission: '/submissions?open=',
};
const KIND_WORDS: Record<string, string> = {
  contact: 'Contact',
  company: 'Company',
  lead: 'Lead',
  intake: 'Intake',
  route: 'Route',
  submission: 'Sent',
};
const ITEM = 'flex h-9 cursor-pointer items-center gap-3 rounded px-3 data-[selected=true]:bg-straw-soft';

/** Finds any record, intake, route or page by its name, and submissions by the words in them. */
export function SearchDialog({ open, close }: { open: boolean; close: () => void }) {
  const [text, setText] = useState('');
  const hits = useQuery(searchQuery(text));
  const navigate = useNavigate();
  const go = (path: string) => {
    close();
    setText('');
    void navigate(path);
  };
  const words = useWords();
  const everywhere = [...PLACES, [words.Many('deal'), '/records/deals'] as const];
  const places = everywhere.filter(([name]) => name.toLowerCase().includes(text.trim().toLowerCase()));
  return (
    <Command.Dialog
      open={open}
      onOpenChange={(next) => !next && close()}
      shouldFilter={false}
      label="Find anything"
      overlayClassName="fixed inset-0 z-40 bg-scrim"
      contentClassName="fixed left-1/2 top-[12vh] z-50 w-[calc(100vw-32px)] max-w-[560px] -translate-x-1/2 overflow-hidden rounded border border-line bg-raised shadow-xl"
    >
      <Command.Input
        value={text}
        onValueChange={setText}
        placeholder="A name, an e-mail, C-1094, a route …"
        className="h-12 w-full border-b border-line bg-transparent px-4 text-[16px] outline-none placeholder:text-faint"
      />
      <Command.List className="max-h-[52vh] overflow-y-auto p-2">
        {hits.data?.map((hit) => (
          <Command.Item
            key={hit.id}
            value={hit.id}
            className={ITEM}
            onSelect={() => go(`${KIND_PATHS[hit.kind]}${hit.id}`)}
          >
            <span className="w-20 flex-none text-label text-muted">
              {hit.kind === 'deal' ? words.One('deal') : KIND_WORDS[hit.kind]}
            </span>
            <span className="min-w-0 flex-1 truncate">{hit.name}</span>
            <span className="min-w-0 max-w-[45%] truncate text-small text-muted">
              {hit.kind === 'submission' ? <Time at={hit.detail} /> : hit.detail}
            </span>
          </Command.Item>
        ))}
        {places.map(([name, path]) => (
          <Command.Item key={path} value={path} className={ITEM} onSelect={() => go(path)}>
            <span className="w-20 flex-none text-label text-muted">Go to</span>
            {name}
          </Command.Item>
        ))}
        {text.trim() !== '' && hits.isSuccess && hits.data.length + places.length === 0 && (
          <p className="px-3 py-6 text-center text-muted">Nothing is called “{text}”.</p>
        )}
      </Command.List>
    </Command.Dialog>
  );
}
