import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { fieldsQuery, labelsQuery, peopleQuery, pipelinesQuery, teamsQuery } from '../api/queries';
import { useWords } from '../api/words';

interface Found {
  name: string;
  about: string;
  path: string;
}

const MOST = 8;

/** Finds anything that was set up, by its name or key. */
export function SetUpSearch() {
  const [text, setText] = useState('');
  const [at, setAt] = useState(0);
  const navigate = useNavigate();
  const found = useFound(text);
  const go = ({ path }: Found) => {
    setText('');
    void navigate(path);
  };
  return (
    <div className="relative w-56">
      <input
        type="search"
        role="combobox"
        aria-label="Find in the set-up"
        aria-expanded={found.length > 0}
        aria-controls="set-up-found"
        placeholder="Find a field, stage, person …"
        value={text}
        onChange={({ target }) => {
          setText(target.value);
          setAt(0);
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown') setAt(Math.min(found.length - 1, at + 1));
          if (event.key === 'ArrowUp') setAt(Math.max(0, at - 1));
          if (event.key === 'Enter' && found[at]) go(found[at]);
          if (event.key === 'Escape') setText('');
        }}
        className="h-8 w-full rounded border border-faint bg-raised px-2.5 placeholder:text-faint"
      />
      {text.trim() !== '' && (
        <ul
          id="set-up-found"
          role="listbox"
          className="absolute top-9 right-0 z-20 w-80 rounded border border-line bg-raised p-1 shadow-xl"
        >
          {found.map((one, index) => (
            <li key={`${one.path} ${one.name}`} role="option" aria-selected={index === at}>
              <button
                type="button"
                onClick={() => go(one)}
                className={`flex h-8 w-full items-center gap-2 rounded px-2 text-left ${index === at ? 'bg-straw-soft' : 'hover:bg-hair'}`}
              >
                <span className="min-w-0 flex-1 truncate">{one.name}</span>
                <span className="flex-none text-small text-muted">{one.about}</span>
              </button>
            </li>
          ))}
          {!found.length && <li className="px-2 py-2 text-muted">Nothing is called “{text}”.</li>}
        </ul>
      )}
    </div>
  );
}

function useFound(text: string): Found[] {
  const words = useWords();
  const fields = useQuery(fieldsQuery).data ?? [];
  const pipelines = useQuery(pipelinesQuery).data ?? [];
  const people = useQuery(peopleQuery).data ?? [];
  const teams = useQuery(teamsQuery).data ?? [];
  const tags = useQuery(labelsQuery('tags')).data ?? [];
  const lists = useQuery(labelsQuery('lists')).data ?? [];
  const wanted = text.trim().toLowerCase();
  if (!wanted) return [];
  const all: (Found & { key: string })[] = [
    ...pipelines.flatMap(({ key, name, stages }) => [
      { key, name, about: 'pipeline', path: `/set-up/pipelines/${key}` },
      ...stages.map((stage) => ({
        key: stage.key,
        name: stage.name,
        about: `stage of ${name}`,
        path: `/set-up/pipelines/${key}`,
      })),
    ]),
    ...fields.map(({ key, label, record }) => ({
      key,
      name: label,
      about: `field of the ${words.one(record)}`,
      path: `/set-up/fields/${record}`,
    })),
    ...people.map(({ key, name }) => ({ key, name, about: 'person', path: `/set-up/people/${key}` })),
    ...teams.map(({ key, name }) => ({ key, name, about: 'team', path: `/set-up/teams/${key}` })),
    ...lists.map(({ key, name }) => ({ key, name, about: 'list', path: '/set-up/lists' })),
    ...tags.map(({ key, name }) => ({ key, name, about: 'tag', path: '/set-up/tags' })),
    { key: '', name: 'Exchange rates', about: 'workspace', path: '/set-up/workspace' },
    { key: '', name: 'Lead handling', about: 'workspace', path: '/set-up/workspace' },
  ];
  return all
    .filter(({ key, name }) => name.toLowerCase().includes(wanted) || key.includes(wanted))
    .sort((a, b) => Number(b.name.toLowerCase().startsWith(wanted)) - Number(a.name.toLowerCase().startsWith(wanted)))
    .slice(0, MOST);
}
