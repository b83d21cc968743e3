import type { UnknownCause, UnknownSources } from '@haycart/api';
import { counted } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { unknownSourcesQuery, type SourcesNarrowing, type SourcesWish } from '../api/queries';
import { count, percent } from '../components/format';
import { Sheet } from '../components/sheet';

const WORDS: Record<UnknownCause, { title: string; help: string }> = {
  'lost-within': {
    title: 'Lost on the way through the site',
    help: 'They came from another page of the same site, and the parameters stayed there. Add the landing script to every page.',
  },
  'click-alone': {
    title: 'A click without parameters',
    help: 'An advertisement gave its click a number and nothing else. Make its link with a campaign, or add a channel rule.',
  },
  'no-visit': {
    title: 'The sender tells nothing of a visit',
    help: 'A post by another program. Say at the intake where what comes from there comes from.',
  },
  'no-referrer': {
    title: 'Neither parameters nor a referring site',
    help: 'Typed, out of an app or a document, or the site hides it. Use links of a campaign there, and QR codes in print.',
  },
  'of-old': {
    title: 'Kept before ways were',
    help: 'What was seen then is read when channel rules are applied to the past.',
  },
};

/** The causes of unknown sources, and what to do about each. */
export function UnknownCauses({ wish }: { wish: SourcesNarrowing & Pick<SourcesWish, 'from' | 'to'> }) {
  const unknown = useQuery(unknownSourcesQuery(wish)).data;
  if (!unknown || (!unknown.causes.length && !unknown.byHand)) return null;
  return (
    <Sheet>
      <h2 className="px-3.5 pt-2.5 text-base leading-7">What is not known, and why</h2>
      <table className="mb-1 w-full border-collapse" aria-label="Why sources are unknown">
        <tbody>
          {unknown.causes.map(({ cause, touches, intakes }) => (
            <tr key={cause} className="border-b border-hair align-top last:border-0">
              <td className="px-3.5 py-2">
                <span className="font-semibold">{WORDS[cause].title}</span>
                <span className="block text-muted">
                  {WORDS[cause].help} <Intakes intakes={intakes} />
                </span>
              </td>
              <Figure value={touches} of={unknown} />
            </tr>
          ))}
          {unknown.byHand > 0 && (
            <tr className="align-top">
              <td className="px-3.5 py-2">
                <span className="font-semibold">No touch</span>
                <span className="block text-muted">
                  {counted(unknown.byHand, 'deal')} were made by hand or through the API. Enter them through a form for
                  colleagues, and their source is asked.
                </span>
              </td>
              <td className="tabular px-3.5 py-2 text-right">{count(unknown.byHand)}</td>
            </tr>
          )}
        </tbody>
      </table>
    </Sheet>
  );
}

function Intakes({ intakes }: { intakes: UnknownSources['causes'][number]['intakes'] }) {
  return intakes.map(({ key, name, touches }, index) => (
    <span key={key}>
      {index > 0 && ', '}
      <Link to={`/intakes/${key}`} className="text-slate underline">
        {name}
      </Link>{' '}
      {count(touches)}
    </span>
  ));
}

function Figure({ value, of }: { value: number; of: UnknownSources }) {
  return (
    <td className="tabular px-3.5 py-2 text-right whitespace-nowrap">
      {count(value)}
      <span className="block text-small text-muted">{percent(of.touches ? value / of.touches : 0)} of all</span>
    </td>
  );
}
