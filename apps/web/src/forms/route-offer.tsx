import type { IntakeShape, Rehearsal } from '@haycart/api';
import {
  againWords,
  exampleAnswers,
  fieldOf,
  followFields,
  questionsOf,
  routeFromForm,
  showFieldValue,
  type Destination,
  type FormDefinition,
  type FormRouteWish,
} from '@haycart/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../api/client';
import { useWords } from '../api/words';
import { MarksChoice } from '../components/marks-choice';
import { OwnerChoice } from '../components/owner-choice';
import { Points } from '../components/points';
import { messageOf } from '../components/status';
import { SelectField, TextField } from '../components/text-field';

/** The route that follows from a form, asked for once and shown as a rehearsal before anything is made. */
export function RouteOffer({
  intake,
  form,
  destination,
  wish,
  change,
}: {
  intake: IntakeShape;
  form: FormDefinition;
  destination: Destination;
  /** Absent: no route is made. */
  wish: FormRouteWish | null;
  change: (wish: FormRouteWish | null) => void;
}) {
  const words = useWords();
  const put = (part: Partial<FormRouteWish>) =>
    change(Object.fromEntries(Object.entries({ ...wish, ...part }).filter(([, value]) => value !== undefined)));
  const asks = (record: string) => questionsOf(form).some(({ feeds }) => feeds?.record === record);
  const places = destination.pipelines.flatMap(({ key, name, record, stages }) =>
    stages.map((stage) => ({
      value: `${record} ${key} ${stage.key}`,
      label: `${words.One(record!)} in ${name}, ${stage.name}${stage.state === 'open' ? '' : ` (${stage.state})`}`,
    })),
  );
  const place = wish?.place;
  const owner = wish?.owner;
  return (
    <section className="rounded border border-line p-3">
      <label className="flex items-center gap-2 font-semibold">
        <input
          type="checkbox"
          className="size-4 accent-green"
          checked={wish !== null}
          onChange={({ target }) => change(target.checked ? {} : null)}
        />
        Make the route that follows from it
      </label>
      {wish === null ? (
        <p className="mt-1 text-muted">What is sent is kept, and waits for a route.</p>
      ) : (
        <>
          <div className="mt-3 grid gap-3 sm:grid-cols-2">
            <SelectField
              label="Makes"
              value={place ? `${place.record} ${place.pipeline} ${place.stage}` : ''}
              onChange={({ target }) => {
                const [record, pipeline, stage] = target.value.split(' ') as ['deal' | 'lead', string, string];
                put({
                  place: target.value ? { record, pipeline, stage, again: place?.again ?? 'update' } : undefined,
                } as Partial<FormRouteWish>);
              }}
            >
              {!asks('deal') && <option value="">contacts only</option>}
              {places.map(({ value, label }) => (
                <option key={value} value={value}>
                  {label}
                </option>
              ))}
            </SelectField>
            {place && (
              <SelectField
                label="A second enquiry"
                value={place.again}
                onChange={({ target }) => put({ place: { ...place, again: target.value as typeof place.again } })}
              >
                {(['update', 'new-if-closed', 'new'] as const).map((again) => (
                  <option key={again} value={again}>
                    {againWords(words.one(place.record))[again]}
                  </option>
                ))}
              </SelectField>
            )}
            {place?.record === 'deal' && (
              <TextField
                label="Value"
                placeholder={`${destination.defaultCurrency} 500, if the form does not ask`}
                value={wish.value ?? ''}
                onChange={({ target }) => put({ value: target.value || undefined } as Partial<FormRouteWish>)}
              />
            )}
            {place && (
              <OwnerChoice
                record={place.record}
                owner={owner}
                destination={destination}
                change={(next) => put({ owner: next } as Partial<FormRouteWish>)}
              />
            )}
          </div>
          <div className="mt-3 grid gap-3 sm:grid-cols-2">
            <MarksChoice
              destination={destination}
              record="contact"
              field="tags"
              label="Tags"
              chosen={wish.tags}
              change={(tags) => put({ tags } as Partial<FormRouteWish>)}
            />
            <MarksChoice
              destination={destination}
              record="contact"
              field="lists"
              label="Lists"
              chosen={wish.lists}
              change={(lists) => put({ lists } as Partial<FormRouteWish>)}
            />
          </div>
          <Rehearsed intake={intake} form={form} destination={destination} wish={wish} />
        </>
      )}
    </section>
  );
}

/** What the route would do with an enquiry in which everything is answered. Nothing is written. */
function Rehearsed({
  intake,
  form,
  destination,
  wish,
}: {
  intake: IntakeShape;
  form: FormDefinition;
  destination: Destination;
  wish: FormRouteWish;
}) {
  const words = useWords();
  const definition = routeFromForm(intake, form, destination, wish);
  const payload = exampleAnswers(followFields(form, destination.fields));
  const body = { definition, payload };
  const rehearsal = useQuery({
    queryKey: ['records', 'rehearsal', body],
    queryFn: () => call<Rehearsal>('POST', '/rehearse', body),
    placeholderData: keepPreviousData,
    retry: false,
  });
  if (rehearsal.isError)
    return (
      <p role="alert" className="mt-3 text-brick">
        {messageOf(rehearsal.error)}
      </p>
    );
  const plan = rehearsal.data;
  if (!plan) return null;
  return (
    <div className="mt-3">
      {plan.outcome !== 'write' && plan.reason && (
        <Points title="What cannot be written" state="failed" points={[plan.reason.text]} />
      )}
      <h3 className="mb-1 text-[14px]">What an enquiry would write</h3>
      <div className="grid gap-2 sm:grid-cols-3">
        {plan.writes
          .filter(({ did }) => did !== 'none')
          .map((write) => (
            <section key={write.as} className="rounded border border-line bg-sheet px-2.5 py-2 text-small">
              <b>{words.One(write.record)}</b>
              <dl>
                {write.fields
                  .filter(({ did, after }) => did === 'write' && after !== null)
                  .map(({ field, after }) => {
                    const known = fieldOf(destination, write.record, field);
                    return (
                      <div key={field} className="flex gap-2">
                        <dt className="w-20 flex-none truncate text-muted">{known?.label ?? field}</dt>
                        <dd className="min-w-0 [overflow-wrap:anywhere]">{showFieldValue(known, after)}</dd>
                      </div>
                    );
                  })}
              </dl>
            </section>
          ))}
      </div>
    </div>
  );
}
