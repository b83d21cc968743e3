import {
  againWords,
  recordWord,
  withArticle,
  defaultStageOf,
  fieldLabel,
  fixedText,
  type DecidedOwner,
  type Value,
  type Destination,
  type Pipeline,
  type Place,
  type RouteDefinition,
  type Write,
} from '@haycart/core';
import { Button } from '../components/button';
import { SelectField, TextField } from '../components/text-field';
import { DecidedChoices, decidedIn, decidedKey, useDecided, withDecided } from './decided-choice';
import { changeWrite, useDraft } from './draft';

/** Where a deal is put, and what a second enquiry does. */
export function PlaceSection({ definition, destination }: { definition: RouteDefinition; destination: Destination }) {
  const word = recordWord(destination, 'deal');
  const deals = definition.writes.filter(({ record, place }) => record === 'deal' || place);
  const change = useDraft(({ change }) => change);
  const first = destination.pipelines.find(({ record }) => record === 'deal');
  const add = () => {
    if (!first) return;
    const links = definition.writes.map(({ as }) => as);
    const source = { field: 'source', value: { parts: [{ visit: 'source' }] } };
    const name = {
      field: 'name',
      value: {
        parts: definition.writes.some(({ as }) => as === 'person') ? [{ write: 'person', field: 'full_name' }] : [],
      },
    };
    const place: Place = {
      pipeline: { parts: [{ text: first.key }] },
      stage: { parts: [{ text: beginningOf(first) }] },
      again: 'update',
    };
    change((draft) => ({
      ...draft,
      writes: [...draft.writes, { as: 'sale', record: 'deal', links, place, fills: [name, source] }],
    }));
  };
  if (!deals.length) {
    return (
      <div className="pl-9">
        <p className="mb-2 text-muted">The route writes no {word}.</p>
        <Button onClick={add} disabled={!first}>
          Write {withArticle(word)} too
        </Button>
      </div>
    );
  }
  return (
    <div className="flex flex-col gap-4 pl-9">
      {deals.map(
        (write) =>
          write.place && <PlaceOne key={write.as} write={write} place={write.place} destination={destination} />,
      )}
    </div>
  );
}

function PlaceOne({ write, place, destination }: { write: Write; place: Place; destination: Destination }) {
  const word = recordWord(destination, write.record);
  const set = (change: Partial<Place>) =>
    changeWrite(write.as, (known) => ({ ...known, place: { ...place, ...change } }));
  const pipelineKey = fixedText(place.pipeline);
  const stageKey = fixedText(place.stage);
  const pipelines = destination.pipelines.filter(({ record }) => record === write.record);
  const stages = pipelines.find(({ key }) => key === pipelineKey)?.stages ?? [];
  const fixed = (key: string) => ({ parts: [{ text: key }] });
  const deciding = useDecided();
  const choosePipeline = (key: string) =>
    set({
      pipeline: fixed(key),
      stage: fixed(beginningOf(pipelines.find((pipeline) => pipeline.key === key))),
    });
  return (
    <div className="grid gap-3 sm:grid-cols-3">
      <SelectField
        label="Pipeline"
        value={pipelineKey ?? decidedText(place.pipeline)}
        onChange={({ target }) => {
          const decided = decidedIn(target.value);
          if (decided) set({ pipeline: { parts: [decided] } });
          else choosePipeline(target.value);
        }}
      >
        <PlaceChoices value={place.pipeline} known={pipelines} deciding={deciding('pipeline')} />
      </SelectField>
      <SelectField
        label="Stage"
        value={stageKey ?? decidedText(place.stage)}
        onChange={({ target }) => {
          const decided = decidedIn(target.value);
          set({ stage: decided ? { parts: [decided] } : fixed(target.value) });
        }}
        error={
          stageKey !== null && !stages.some(({ key }) => key === stageKey)
            ? `The pipeline has no stage “${stageKey}”.`
            : undefined
        }
      >
        <PlaceChoices value={place.stage} known={stages} deciding={deciding('stage')} />
      </SelectField>
      <SelectField
        label="A second enquiry"
        value={write.decided?.again ? decidedKey(write.decided.again) : place.again}
        onChange={({ target }) => {
          const decided = decidedIn(target.value);
          changeWrite(write.as, (known) => ({
            ...withDecided(known, 'again', decided),
            ...(decided ? {} : { place: { ...place, again: target.value as Place['again'] } }),
          }));
        }}
      >
        {Object.entries(againWords(word)).map(([again, words]) => (
          <option key={again} value={again}>
            {words}
          </option>
        ))}
        <DecidedChoices deciding={deciding('again')} />
      </SelectField>
      <TextField
        label="Begun within so many days"
        type="number"
        min={1}
        max={3_650}
        placeholder="however long ago"
        value={place.within ?? ''}
        disabled={place.again === 'new'}
        onChange={({ target }) => {
          const { within: _, ...rest } = place;
          const days = Math.trunc(Number(target.value));
          changeWrite(write.as, (known) => ({ ...known, place: days > 0 ? { ...rest, within: days } : rest }));
        }}
      />
      <SelectField
        label="And with the same"
        value={place.sameField ?? ''}
        disabled={place.again === 'new'}
        onChange={({ target }) => {
          const { sameField: _, ...rest } = place;
          changeWrite(write.as, (known) => ({
            ...known,
            place: target.value ? { ...rest, sameField: target.value } : rest,
          }));
        }}
      >
        <option value="">whatever it is about</option>
        {write.fills.map(({ field }) => (
          <option key={field} value={field}>
            {fieldLabel(destination, write.record, field)}
          </option>
        ))}
      </SelectField>
      <label className="flex cursor-pointer items-center gap-2 sm:col-span-3">
        <input
          type="checkbox"
          className="size-4 accent-green"
          checked={place.backwards ?? false}
          disabled={place.again !== 'update'}
          onChange={({ target }) => set({ backwards: target.checked })}
        />
        It may also move the {word} back to this stage
      </label>
    </div>
  );
}

/** The key of the stage in which a pipeline’s deals begin. */
function beginningOf(pipeline: Pipeline | undefined): string {
  return (pipeline && defaultStageOf(pipeline)?.key) ?? '';
}

/** What a place may be: what there is, what a table says, and what is chosen now though it is neither. */
function PlaceChoices({
  value,
  known,
  deciding,
}: {
  value: Value;
  known: readonly { key: string; name: string }[];
  deciding: readonly DecidedOwner[];
}) {
  const key = fixedText(value);
  const decided = decidedText(value);
  const isThere =
    key === null ? deciding.some((one) => decidedKey(one) === decided) : known.some((one) => one.key === key);
  return (
    <>
      {!isThere && <option value={key ?? decided}>{key ?? 'chosen by the answers'}</option>}
      {known.map((one) => (
        <option key={one.key} value={one.key}>
          {one.name}
        </option>
      ))}
      <DecidedChoices deciding={deciding} />
    </>
  );
}

/** The output that a value takes, as the choice of it; `''` where it takes none. */
function decidedText({ parts }: Value): string {
  const [only] = parts;
  return parts.length === 1 && only && 'decision' in only ? decidedKey(only) : '';
}
