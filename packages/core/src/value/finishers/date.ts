import { z } from '../../schema-library';
import { warning } from '../../problem';
import { shorten } from '../../text';
import { readDate, type DateOrder } from '../../reading/date-text';
import { defineFinisher } from './finisher';

export const date = defineFinisher({
  name: 'date',
  label: 'date',
  description:
    'Writes a date as ISO 8601 (2027-04-03), from numbers, with the month’s name in a dozen languages, or from seconds or milliseconds since 1970. Where two readings are possible and no order is given, it becomes blank and says so.',
  parameters: z.strictObject({
    order: z.enum(['as it shows', 'day first', 'month first']).default('as it shows').meta({ title: 'order' }),
  }),
  example: { before: '03/04/27', after: '2027-04-03', with: { order: 'day first' } },
  finish(text, { order }) {
    if (text.trim() === '') return { text: '' };
    const read = readDate(text, ORDERS[order]);
    if (read.ok) return { text: read.date };
    const said = `“${shorten(text.trim(), 40)}”`;
    return {
      text: '',
      problem: read.either
        ? warning(read.code, `${said} could be ${read.either[0]} or ${read.either[1]}. Say which comes first.`)
        : warning(read.code, `${said} is no date.`),
    };
  },
});

const ORDERS: Record<string, DateOrder | undefined> = { 'day first': 'day-first', 'month first': 'month-first' };
