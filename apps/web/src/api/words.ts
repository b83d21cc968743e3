import { countedRecords, recordWord, recordWords, type RecordKind } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { sessionQuery } from './queries';

/** What kinds of record are called here: a workspace may call a deal an opportunity. */
export function useWords() {
  const session = useQuery(sessionQuery).data;
  const dealWord = session?.workspace.dealWord ?? 'deal';
  const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
  return {
    one: (kind: RecordKind) => recordWord({ dealWord }, kind),
    One: (kind: RecordKind) => capital(recordWord({ dealWord }, kind)),
    many: (kind: RecordKind) => recordWords({ dealWord }, kind),
    Many: (kind: RecordKind) => capital(recordWords({ dealWord }, kind)),
    counted: (count: number, kind: RecordKind) => countedRecords({ dealWord }, count, kind),
  };
}
