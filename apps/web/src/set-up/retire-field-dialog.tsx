import type { FieldUse } from '@haycart/api';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { count } from '../components/format';
import { Points } from '../components/points';
import { useFieldChange } from '../components/use-field-change';

/** Says what depends on a field before it goes out of use. */
export function RetireFieldDialog({ field, close }: { field: FieldUse; close: () => void }) {
  const { label, routes, forms, filled } = field;
  const change = useFieldChange(field);
  return (
    <Dialog
      open
      close={close}
      title={`Take ${label} out of use`}
      description={`The values of ${count(filled)} records stay on them, and it can be brought back at any time.`}
    >
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          change.mutate({ retired: true }, { onSuccess: close });
        }}
      >
        {routes.length > 0 && (
          <Points title="Routes that no longer write it" state="held" points={routes.map(({ name }) => name)} />
        )}
        {forms.length > 0 && (
          <Points
            title="Forms that still ask for it; the answer stays with what was sent"
            state="held"
            points={forms.map(({ name }) => name)}
          />
        )}
        <DialogActions error={change.error} close={close} action="Take it out of use" disabled={change.isPending} />
      </form>
    </Dialog>
  );
}
