import type { RouteDefinition } from '../../definition/route-definition';
import { recordWord, type Destination } from '../../destination/destination';
import { assign } from '../../assignment/assign';
import { namedOwner, type NamedOwner } from '../../assignment/choose-owner';
import { Counters } from '../../assignment/counters';

/** What a route writes that nobody would get at a moment (ISO 8601), whoever has room: in words, each with why. */
export function nobodyTakes(
  { writes, decisions = [] }: Pick<RouteDefinition, 'writes' | 'decisions'>,
  destination: Destination,
  at: string,
): string[] {
  const why = (rule: NamedOwner, record: 'contact' | 'company' | 'lead' | 'deal' = 'contact') => {
    const ground = { destination, counters: new Counters(), submission: { receivedAt: at, origin: undefined } };
    const assigned = assign(rule, record, ground);
    return assigned.person === null ? assigned.why : null;
  };
  const ofWrites = writes.flatMap(({ owner, record }) => {
    const named = owner && namedOwner(owner);
    const nobody = named && why(named, record);
    return nobody ? [`Nobody gets the ${recordWord(destination, record)}: ${nobody}`] : [];
  });
  const ofTables = decisions.flatMap(({ name, outputs, rows, otherwise = {} }) =>
    outputs
      .filter(({ type }) => type === 'owner' || type === 'team')
      .flatMap(({ name: output, type }) =>
        [...rows.map(({ then }) => then), otherwise].flatMap((then, row) => {
          const nobody = reasonOf(then[output], type === 'team', why);
          const where = row < rows.length ? `row ${row + 1}` : 'otherwise';
          return nobody ? [`Nobody gets what ${name} decides by ${where}: ${nobody}`] : [];
        }),
      ),
  );
  return [...ofWrites, ...ofTables];
}

/** Why nobody gets what an output says; `null` where somebody does, or it names nobody. */
function reasonOf(said: unknown, isTeam: boolean, why: (rule: NamedOwner) => string | null): string | null {
  if (isTeam) return typeof said === 'string' ? why({ team: said }) : null;
  const isRule = typeof said === 'object' && said !== null && ('person' in said || 'team' in said);
  return isRule ? why(said as NamedOwner) : null;
}
