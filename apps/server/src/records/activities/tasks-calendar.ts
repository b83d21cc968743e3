import ICAL from 'ical.js';
import type { TaskLine } from '@haycart/api';

/** As RFC 5545 orders them: 1 is the highest, 9 the lowest. */
const PRIORITIES: Record<TaskLine['priority'], number> = { high: 1, normal: 5, low: 9 };

/** Tasks as iCalendar (RFC 5545), each a `VTODO` with the address of its record. */
export function tasksCalendar(tasks: readonly TaskLine[], addressOf: (task: TaskLine) => string): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('prodid', '-//Hay Cart//Tasks//EN');
  calendar.updatePropertyWithValue('x-wr-calname', 'Tasks');
  for (const task of tasks) calendar.addSubcomponent(todo(task, addressOf(task)));
  return `${calendar.toString()}\r\n`;
}

function todo(task: TaskLine, address: string): ICAL.Component {
  const { id, text, body, due, at, priority, name } = task;
  const component = new ICAL.Component('vtodo');
  const moment = (iso: string) => ICAL.Time.fromJSDate(new Date(iso), true);
  component.updatePropertyWithValue('uid', `${id}@haycart`);
  component.updatePropertyWithValue('dtstamp', moment(at));
  component.updatePropertyWithValue('summary', `${text}: ${name}`);
  if (body) component.updatePropertyWithValue('description', body);
  if (due) component.updatePropertyWithValue('due', due.length > 10 ? moment(due) : ICAL.Time.fromDateString(due));
  component.updatePropertyWithValue('priority', PRIORITIES[priority]);
  component.updatePropertyWithValue('status', 'NEEDS-ACTION');
  component.updatePropertyWithValue('url', address);
  return component;
}
