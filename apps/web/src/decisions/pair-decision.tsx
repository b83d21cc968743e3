import type { DecisionShape, DecisionView } from '@haycart/api';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { fieldsQuery } from '../api/queries';
import { useWords } from '../api/words';
import { Button } from '../components/button';
import { ComparedSides, sideOf } from '../components/compared-sides';
import { KeptValues, type ChosenValues } from '../components/kept-values';
import { LikenessScale } from '../components/likeness-scale';
import { usePageKeys } from '../components/list-keys';
import { Key } from '../components/sheet';
import type { Deciding } from './decide';

/** Whether two records are the same: both side by side, why they may be, and what one record of both would be. */
export function PairDecision({
  decision,
  pair: { rehearsal, group },
  busy,
  decide,
}: {
  decision: DecisionShape;
  pair: Extract<DecisionView, { as: 'pair' }>;
  busy: boolean;
  decide: (deciding: Deciding) => void;
}) {
  const words = useWords();
  const fields = useQuery(fieldsQuery);
  const [chosen, setChosen] = useState<ChosenValues>({});
  const [whole, setWhole] = useState(false);
  const { kind, sides, shares, probability, thresholds } = rehearsal;
  const [one, other] = sides;
  const word = kind === 'contact' ? 'person' : words.one(kind);
  const act = (action: 'same' | 'different' | 'later') => {
    if (busy) return;
    const values = Object.keys(chosen).length ? { values: chosen } : {};
    decide({ ids: [decision.id], action, ...(action === 'same' ? { ...values, whole } : {}) });
  };
  usePageKeys({
    s: () => act('same'),
    d: () => act('different'),
    l: () => act('later'),
    ...(group.others.length && group.complete ? { w: () => setWhole(!whole) } : {}),
  });
  if (!one || !other) return null;
  return (
    <article className="flex flex-col gap-4">
      <header>
        <h1 className="text-[26px] leading-8">Is this the same {word}?</h1>
        <p className="mt-1 text-muted">
          {one.name === other.name ? `Both are called ${one.name}.` : `${one.name} and ${other.name} may be one.`}
          {group.others.length > 0 &&
            ` ${group.others.map(({ name }) => name).join(', ')} ${group.others.length === 1 ? 'hangs' : 'hang'} together with them${group.complete ? '' : ', but not all are like one another: each pair is decided by itself'}.`}
        </p>
      </header>
      <LikenessScale probability={probability} thresholds={thresholds} />
      <ComparedSides
        one={sideOf(one)}
        other={sideOf(other)}
        shares={shares}
        fields={(fields.data ?? []).filter(({ record }) => record === kind)}
      />
      <div className="flex flex-wrap items-center gap-2">
        <Button look="main" disabled={busy} onClick={() => act('same')}>
          Same {word} <Key>S</Key>
        </Button>
        <Button disabled={busy} onClick={() => act('different')}>
          {kind === 'contact' ? 'Different people' : `Different ${words.many(kind)}`} <Key>D</Key>
        </Button>
        <Button disabled={busy} onClick={() => act('later')}>
          Later <Key>L</Key>
        </Button>
        {group.others.length > 0 && group.complete && (
          <label className="flex h-8 cursor-pointer items-center gap-2 px-1">
            <input
              type="checkbox"
              checked={whole}
              onChange={({ target }) => setWhole(target.checked)}
              className="size-3.5 accent-green"
            />
            all {group.others.length + 2} at once <Key>W</Key>
          </label>
        )}
        <span className="min-w-[28ch] flex-1 text-small text-muted">
          Same: the older record stays, everything of the other goes to it. Can be undone at any time.
        </span>
      </div>
      <KeptValues
        fields={rehearsal.fields}
        chosen={chosen}
        choose={(field, value) => setChosen((before) => ({ ...before, [field]: value }))}
      />
    </article>
  );
}
