import type { Destination, FollowUp, OwnerRule, RouteDefinition, Write } from '@haycart/core';
import { useWords } from '../api/words';
import { MarksChoice } from '../components/marks-choice';
import { OwnerChoice } from '../components/owner-choice';
import { changeWrite, useDraft } from './draft';

/** Whose what is written becomes, and how it is marked. */
export function FollowUpSection({
  definition,
  destination,
}: {
  definition: RouteDefinition;
  destination: Destination;
}) {
  return (
    <div className="flex flex-col gap-4 pl-9">
      {definition.writes.map((write) => (
        <OneWrite key={write.as} write={write} followUps={definition.followUps ?? []} destination={destination} />
      ))}
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
  const change = useDraft(({ change }) => change);
  const tags = followUps.flatMap((one) => (one.do === 'tag' && one.on === write.as ? one.tags : []));
  const lists = followUps.flatMap((one) => (one.do === 'list' && one.on === write.as ? one.lists : []));
  const put = (next: FollowUp | null, what: 'tag' | 'list') =>
    change(({ followUps: before = [], ...draft }) => {
      const others = before.filter((one) => !('on' in one && one.on === write.as && one.do === what));
      const after = next ? [...others, next] : others;
      return after.length ? { ...draft, followUps: after } : draft;
    });
  return (
    <section>
      <h3 className="mb-1.5 text-[14px]">{words.One(write.record)}</h3>
      <div className="grid gap-3 sm:grid-cols-3">
        <OwnerChoice
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
          chosen={tags}
          change={(next) => put(next ? { do: 'tag', on: write.as, tags: next } : null, 'tag')}
        />
        {write.record === 'contact' && (
          <MarksChoice
            destination={destination}
            record="contact"
            field="lists"
            label="Lists of the contact"
            chosen={lists}
            change={(next) => put(next ? { do: 'list', on: write.as, lists: next } : null, 'list')}
          />
        )}
      </div>
    </section>
  );
}

function withOwner({ owner: _, ...write }: Write, owner: OwnerRule | undefined): Write {
  return owner ? { ...write, owner } : write;
}
