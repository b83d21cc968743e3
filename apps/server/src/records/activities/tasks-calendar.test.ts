import { expect, test } from '@jest/globals';
import type { TaskLine } from '@haycart/api';
import ICAL from 'ical.js';
import { tasksCalendar } from './tasks-calendar';

const task: TaskLine = {
  id: 'one',
  text: 'Call; back, “soon”',
  body: `Long\nlines ${'x'.repeat(200)}`,
  priority: 'high',
  owner: 'ida',
  due: '2026-03-23T10:00:00Z',
  by: 'the route Enquiries',
  at: '2026-03-20T10:00:00.000Z',
  doneAt: null,
  doneBy: null,
  kind: 'deal',
  record: 'two',
  name: 'Weir\r\nBEGIN:VEVENT',
};
const read = (text: string) =>
  new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents().map((one) => ({
    kind: one.name,
    ...Object.fromEntries(one.getAllProperties().map((property) => [property.name, String(property.getFirstValue())])),
  }));

test('tasks are read back as they were, whatever they hold, in lines of at most 75 bytes', () => {
  const text = tasksCalendar(
    [task, { ...task, id: 'two', due: '2026-03-24', body: null, name: 'Bo' }, { ...task, id: 'three', due: null }],
    ({ record }) => `https://crm.example/records/deals/${record}`,
  );
  expect(read(text)).toMatchObject([
    {
      kind: 'vtodo',
      uid: 'one@haycart',
      due: '2026-03-23T10:00:00Z',
      description: task.body,
      priority: '1',
      url: 'https://crm.example/records/deals/two',
    },
    { summary: 'Call; back, “soon”: Bo', due: '2026-03-24' },
    { uid: 'three@haycart' },
  ]);
  expect(text.split('\r\n').every((line) => Buffer.byteLength(line) <= 75 + 2)).toBe(true);
  expect(text).toContain('DUE;VALUE=DATE:20260324');
  expect(text).not.toMatch(/^BEGIN:VEVENT/m);
});
