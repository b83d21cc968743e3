import { WEEKDAY_NAMES, WEEKDAYS, type WorkingHours } from '@haycart/core';
import { FieldError } from './field-error';
import { TextField } from './text-field';

/** The hours of each day of the week on which somebody works, or something is read. */
export function HoursField({
  legend,
  without: said,
  hours,
  error,
  change,
}: {
  legend: string;
  /** What having no hours at all means. */
  without: string;
  hours: WorkingHours;
  error: string | undefined;
  change: (hours: WorkingHours) => void;
}) {
  return (
    <fieldset className="min-w-0">
      <legend className="mb-1 font-semibold">{legend}</legend>
      <ul className="flex flex-col gap-1">
        {WEEKDAYS.map((day) => {
          const span = hours[day];
          const without = () => {
            const { [day]: _, ...rest } = hours;
            return rest;
          };
          return (
            <li key={day} className="flex min-h-8 flex-wrap items-center gap-2">
              <label className="flex w-32 items-center gap-2 max-sm:w-full">
                <input
                  type="checkbox"
                  className="size-4 accent-green"
                  checked={span !== undefined}
                  onChange={({ target }) =>
                    change(target.checked ? { ...hours, [day]: { from: '09:00', to: '17:00' } } : without())
                  }
                />
                {WEEKDAY_NAMES[day]}
              </label>
              {span && (
                <>
                  <TimeInput
                    label={`${WEEKDAY_NAMES[day]} from`}
                    value={span.from}
                    change={(from) => change({ ...hours, [day]: { ...span, from } })}
                  />
                  to
                  <TimeInput
                    label={`${WEEKDAY_NAMES[day]} to`}
                    value={span.to}
                    change={(to) => change({ ...hours, [day]: { ...span, to } })}
                  />
                </>
              )}
            </li>
          );
        })}
      </ul>
      <FieldError error={error} />
      <p className="mt-1 text-small text-muted">{said}</p>
    </fieldset>
  );
}

function TimeInput({ label, value, change }: { label: string; value: string; change: (value: string) => void }) {
  return (
    <input
      type="time"
      aria-label={label}
      className="h-8 rounded border border-faint bg-raised px-2"
      value={value}
      onChange={({ target }) => change(target.value)}
    />
  );
}

/** The time zone in which hours are read, by its IANA name. */
export function TimeZoneField({
  timeZone,
  error,
  change,
}: {
  timeZone: string | null;
  error: string | undefined;
  change: (timeZone: string | null) => void;
}) {
  return (
    <>
      <TextField
        label="Time zone"
        placeholder="Europe/Dublin"
        list="time-zones"
        value={timeZone ?? ''}
        error={error}
        onChange={({ target }) => change(target.value || null)}
      />
      <datalist id="time-zones">
        {Intl.supportedValuesOf('timeZone').map((zone) => (
          <option key={zone} value={zone} />
        ))}
      </datalist>
    </>
  );
}
