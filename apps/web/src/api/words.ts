import { capitalised, countedRecords, recordWord, recordWords, type RecordKind } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { sessionQuery } from './queries';

/** What kinds of record are called here: a workspace may call a deal an opportunity. */
export function useWords() {
  const session = useQuery(sessionQuery).data;
  const dealWord = session?.workspace.dealWord ?? 'deal';
  return {
    one: (kind: RecordKind) => recordWord({ dealWord }, kind),
    One: (kind: RecordKind) => capitalised(recordWord({ dealWord }, kind)),
    many: (kind: RecordKind) => recordWords({ dealWord }, kind),
    Many: (kind: RecordKind) => capitalised(recordWords({ dealWord }, kind)),
    counted: (count: number, kind: RecordKind) => countedRecords({ dealWord }, count, kind),
  };
}
