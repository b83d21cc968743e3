import type { PersonOwner, TeamOwner } from '../assignment/choose-owner';
import type { Destination } from '../destination/destination';
import { isMoney } from '../diff/record';
import type { OutputType } from './decision-table';
import { outputChoices } from './notation/output-choices';
import { isUnread, readOutput } from './notation/output-text';

/** What is wrong with what an output says, as a sentence; `null` where nothing is. */
export function wrongOutput(value: unknown, type: OutputType, destination: Destination): string | null {
  if (isUnread(value)) {
    const read = readOutput(value.unread, type, destination);
    return read.ok ? `“${value.unread}” was not understood. Type it again.` : read.text;
  }
  switch (type) {
    case 'text':
      return typeof value === 'string' ? null : 'this is no text.';
    case 'number':
      return (typeof value === 'number' && Number.isFinite(value)) || isMoney(value) ? null : 'this is no number.';
    case 'yes-no':
      return typeof value === 'boolean' ? null : 'this is neither yes nor no.';
    case 'owner': {
      const { person, team, standIn, otherwise, shares = {} } = value as Partial<PersonOwner & TeamOwner>;
      const people = [person, standIn, otherwise, ...Object.keys(shares)].filter((key) => key !== undefined);
      return (
        people.map((key) => unknownName(key, 'person', destination)).find((wrong) => wrong !== null) ??
        (person === undefined ? unknownName(String(team), 'team', destination) : null)
      );
    }
    default:
      return unknownName(String(value), type, destination);
  }
}

function unknownName(
  key: string,
  type: Exclude<OutputType, 'text' | 'number' | 'yes-no' | 'owner'>,
  destination: Destination,
) {
  const there = outputChoices(type, destination).some((choice) => choice.key === key && !choice.retired);
  return there ? null : `there is no ${type} “${key}”.`;
}
