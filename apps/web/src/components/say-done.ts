import { toast } from 'sonner';

/** How long a way back stays in the corner, in milliseconds: long enough to read it, look at the page, and decide. */
const WAY_BACK_MS = 20_000;

/** Says in the corner what was done; with a way back it stays longer, and longer still while the pointer rests on it. */
export function sayDone(text: string, back?: { label: string; act: () => void }): void {
  toast(text, back ? { duration: WAY_BACK_MS, action: { label: back.label, onClick: back.act } } : {});
}
