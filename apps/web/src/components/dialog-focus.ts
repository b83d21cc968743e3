/** Fields that somebody who opens a dialog begins with. */
const FIELDS =
  'input:not([type=hidden]):not([disabled]):not([tabindex="-1"]), select:not([disabled]), textarea:not([disabled])';

/** What was focused or pressed last outside of menus and dialogs: they go, and what they were opened from stays. */
let lastOnPage: HTMLElement | null = null;

const remember = ({ target }: Event) => {
  if (!(target instanceof Element) || target.closest('[role=menu], [role=dialog], [role=alertdialog]')) return;
  // A press on the button of a menu does not give it the focus.
  lastOnPage = target.closest<HTMLElement>('button, a, input, select, textarea, [tabindex]') ?? lastOnPage;
};
document.addEventListener('focusin', remember);
document.addEventListener('pointerdown', remember, true);

/** Begins a dialog on its first field, where it has one; else the dialog chooses. */
export function focusFirstField(event: Event): void {
  const field = (event.currentTarget as HTMLElement).querySelector<HTMLElement>(FIELDS);
  if (!field) return;
  event.preventDefault();
  field.focus();
}

/** Gives the focus back to what the dialog was opened from, also where that was an item of a menu that is gone. */
export function focusBack(event: Event): void {
  if (!lastOnPage?.isConnected) return;
  event.preventDefault();
  lastOnPage.focus();
}
