import type { ProfileFieldShape } from '@haycart/api';
import {
  alwaysAdded,
  type Destination,
  type FollowUp,
  type OwnerRule,
  type RouteDefinition,
  type Write,
} from '@haycart/core';
import { useWords } from '../../api/words';
import { MarksChoice } from '../../components/marks-choice';
import { OwnerChoice } from '../../components/owner-choice';
import { changeWrite, useDraft, useTables } from '../draft';
import { Holds } from './holds';
import { FollowUpSteps } from './follow-up-steps';
import { isPlainMark } from './plain-mark';

/** Whose what is written becomes and how it is marked, and what is done after it. */
export function FollowUpSection({
  definition,
  destination,
  incoming,
  sample,
}: {
  definition: RouteDefinition;
  destination: Destination;
  incoming: readonly ProfileFieldShape[];
  sample: ReadonlyMap<string, string>;
}) {
  return (
    <div className="flex flex-col gap-4 pl-9 max-sm:pl-0">
      {definition.writes.map((write) => (
        <OneWrite key={write.as} write={write} followUps={definition.followUps ?? []} destination={destination} />
      ))}
      <Holds definition={definition} destination={destination} incoming={incoming} />
      <FollowUpSteps definition={definition} destination={destination} incoming={incoming} sample={sample} />
    </div>
  );
}

function OneWrite({
  write,
  followUps,
  destination,
}: {
  write: Write;
  followUps: readonly FollowUp[];
  destination: Destination;
}) {
  const words = useWords();
  const tables = useTables();
  const change = useDraft(({ change }) => change);
  const plain = followUps.filter((one) => isPlainMark(one) && one.on === write.as);
  const put = (of: 'tag' | 'list', field: 'tags' | 'lists', chosen: string[] | undefined) =>
    change(({ followUps: before = [], ...draft }) => {
      const others = before.filter((one) => !(isPlainMark(one) && one.on === write.as && one.do === of));
      const after = chosen ? [...others, { do: of, on: write.as, [field]: chosen }] : others;
      return after.length ? { ...draft, followUps: after } : draft;
    });
  return (
    <section>
      <h3 className="mb-1.5 text-[14px]">{words.One(write.record)}</h3>
      <div className="grid gap-3 sm:grid-cols-3">
        <OwnerChoice
          tables={tables}
          label={`Owner of the ${words.one(write.record)}`}
          record={write.record}
          owner={write.owner}
          destination={destination}
          change={(owner) => changeWrite(write.as, (before) => withOwner(before, owner))}
        />
        <MarksChoice
          destination={destination}
          record={write.record}
          field="tags"
          label={`Tags of the ${words.one(write.record)}`}
          chosen={alwaysAdded(plain, 'tag')}
          change={(next) => put('tag', 'tags', next)}
        />
        {write.record === 'contact' && (
          <MarksChoice
            destination={destination}
            record="contact"
            field="lists"
            label="Lists of the contact"
            chosen={alwaysAdded(plain, 'list')}
            change={(next) => put('list', 'lists', next)}
          />
        )}
      </div>
    </section>
  );
}

function withOwner({ owner: _, ...write }: Write, owner: OwnerRule | undefined): Write {
  return owner ? { ...write, owner } : write;
}
