import {
  useId,
  type InputHTMLAttributes,
  type ReactNode,
  type Ref,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
} from 'react';

const BOX =
  'w-full rounded border border-faint bg-raised px-2.5 text-ink placeholder:text-faint focus-visible:outline-2 focus-visible:outline-offset-0 focus-visible:outline-slate aria-invalid:border-brick';

interface Around {
  label: string;
  /** Shown only to screen readers where the surroundings say it already. */
  hideLabel?: boolean;
  help?: ReactNode;
  error?: string | undefined;
}

function Labelled({ label, hideLabel, help, error, id, children }: Around & { id: string; children: ReactNode }) {
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'font-semibold'}>
        {label}
      </label>
      {children}
      {help && (
        <span id={`${id}-help`} className="text-small text-muted">
          {help}
        </span>
      )}
      {error && (
        <span id={`${id}-error`} role="alert" className="text-small text-brick">
          {error}
        </span>
      )}
    </div>
  );
}

const described = (id: string, { help, error }: Around) =>
  [help && `${id}-help`, error && `${id}-error`].filter(Boolean).join(' ') || undefined;

/** The one text field of every form in the application. */
export function TextField({
  label,
  hideLabel,
  help,
  error,
  className = '',
  ref,
  ...rest
}: Around & InputHTMLAttributes<HTMLInputElement> & { ref?: Ref<HTMLInputElement> }) {
  const id = useId();
  const around = { label, help, error, ...(hideLabel ? { hideLabel } : {}) };
  return (
    <Labelled {...around} id={id}>
      <input
        id={id}
        ref={ref}
        aria-invalid={error ? true : undefined}
        aria-describedby={described(id, around)}
        className={`h-8 ${BOX} ${className}`}
        {...rest}
      />
    </Labelled>
  );
}

export function TextArea({
  label,
  hideLabel,
  help,
  error,
  className = '',
  ...rest
}: Around & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  const id = useId();
  const around = { label, help, error, ...(hideLabel ? { hideLabel } : {}) };
  return (
    <Labelled {...around} id={id}>
      <textarea
        id={id}
        aria-invalid={error ? true : undefined}
        aria-describedby={described(id, around)}
        className={`py-1.5 ${BOX} ${className}`}
        {...rest}
      />
    </Labelled>
  );
}

export function SelectField({
  label,
  hideLabel,
  help,
  error,
  className = '',
  children,
  ...rest
}: Around & SelectHTMLAttributes<HTMLSelectElement>) {
  const id = useId();
  const around = { label, help, error, ...(hideLabel ? { hideLabel } : {}) };
  return (
    <Labelled {...around} id={id}>
      <select
        id={id}
        aria-invalid={error ? true : undefined}
        aria-describedby={described(id, around)}
        className={`h-8 ${BOX} ${className}`}
        {...rest}
      >
        {children}
      </select>
    </Labelled>
  );
}
