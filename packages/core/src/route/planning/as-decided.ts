import type { DecidedOwner } from '../../assignment/choose-owner';
import { AGAIN, WHEN_MATCHED } from '../../decision/known-words';
import type { Write } from '../../definition/route-definition';
import type { PartReader } from '../../value/work-out-value';

/** A write with what tables say about it in the place of what it says itself. A table that says nothing leaves it so. */
export function asDecided(write: Write, read: PartReader): Write {
  const { decided } = write;
  if (!decided) return write;
  const said = <Choice extends string>(choices: readonly Choice[], output: DecidedOwner | undefined) =>
    output && choices.find((choice) => choice === read(output));
  const whenMatched = said(WHEN_MATCHED, decided.whenMatched);
  const again = said(AGAIN, decided.again);
  return {
    ...write,
    ...(whenMatched ? { whenMatched } : {}),
    ...(again && write.place ? { place: { ...write.place, again } } : {}),
  };
}
