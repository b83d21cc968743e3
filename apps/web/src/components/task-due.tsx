import { shortDay } from './format';
import { Time } from './time';

/** Whether the time of a task, a day or a moment (ISO 8601), has passed. */
export function isOverdue(due: string | null, now = new Date()): boolean {
  if (!due) return false;
  return due.length > 10 ? due < now.toISOString() : due < now.toISOString().slice(0, 10);
}

/** When a task is due: the day, or the moment. */
export function TaskDue({ due }: { due: string }) {
  return <>{due.length > 10 ? <Time at={due} /> : <time dateTime={due}>{shortDay(`${due}T12:00:00Z`)}</time>}</>;
}
