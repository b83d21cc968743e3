import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
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
  const { found, looking } = useFound(text);
  // Enter before all is read goes there as soon as it is.
  const [entered, setEntered] = useState(false);
  const go = ({ path }: Found) => {
    setText('');
    setEntered(false);
    void navigate(path);
  };
  const wanted = entered && !looking ? found[at] : undefined;
  useEffect(() => {
    if (wanted) go(wanted);
  });
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
          setEntered(false);
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown') setAt(Math.min(found.length - 1, at + 1));
          if (event.key === 'ArrowUp') setAt(Math.max(0, at - 1));
          if (event.key === 'Enter') setEntered(true);
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
          {!found.length && (
            <li className="px-2 py-2 text-muted">{looking ? 'Looking …' : `Nothing is called “${text}”.`}</li>
          )}
        </ul>
      )}
    </div>
  );
}

/** What is called so, as far as it is read; `looking` while some of it is not. */
function useFound(text: string): { found: Found[]; looking: boolean } {
  const words = useWords();
  const read = [
    useQuery(fieldsQuery),
    useQuery(pipelinesQuery),
    useQuery(peopleQuery),
    useQuery(teamsQuery),
    useQuery(labelsQuery('tags')),
    useQuery(labelsQuery('lists')),
  ] as const;
  const [fields, pipelines, people, teams, tags, lists] = read;
  const looking = read.some(({ isPending }) => isPending);
  const wanted = text.trim().toLowerCase();
  if (!wanted) return { found: [], looking };
  const all: (Found & { key: string })[] = [
    ...(pipelines.data ?? []).flatMap(({ key, name, stages }) => [
      { key, name, about: 'pipeline', path: `/set-up/pipelines/${key}` },
      ...stages.map((stage) => ({
        key: stage.key,
        name: stage.name,
        about: `stage of ${name}`,
        path: `/set-up/pipelines/${key}`,
      })),
    ]),
    ...(fields.data ?? []).map(({ key, label, record }) => ({
      key,
      name: label,
      about: `field of the ${words.one(record)}`,
      path: `/set-up/fields/${record}`,
    })),
    ...(people.data ?? []).map(({ key, name }) => ({ key, name, about: 'person', path: `/set-up/people/${key}` })),
    ...(teams.data ?? []).map(({ key, name }) => ({ key, name, about: 'team', path: `/set-up/teams/${key}` })),
    ...(lists.data ?? []).map(({ key, name }) => ({ key, name, about: 'list', path: '/set-up/lists' })),
    ...(tags.data ?? []).map(({ key, name }) => ({ key, name, about: 'tag', path: '/set-up/tags' })),
    { key: '', name: 'Exchange rates', about: 'workspace', path: '/set-up/workspace' },
    { key: '', name: 'Lead handling', about: 'workspace', path: '/set-up/workspace' },
  ];
  const found = all
    .filter(({ key, name }) => name.toLowerCase().includes(wanted) || key.includes(wanted))
    .sort((a, b) => Number(b.name.toLowerCase().startsWith(wanted)) - Number(a.name.toLowerCase().startsWith(wanted)))
    .slice(0, MOST);
  return { found, looking };
}
