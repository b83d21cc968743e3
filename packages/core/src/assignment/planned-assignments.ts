import type { RecordKind } from '../diff/record';

/** Who is given a record by a run, and how that came about. */
export interface PlannedAssignment {
  record: RecordKind;
  /** Of the record. */
  id: string;
  /** The key of who gets it. */
  person: string;
  /** The rest of a sentence about the person: `in turn in North`. */
  why: string;
  /** The key of the team whose turn it was, where one was. */
  team?: string;
  /** The pipeline that the record stands in, where it stands in one. */
  pipeline?: string;
  /** Where turns were taken: the shares of those who could have got it. */
  shares?: Readonly<Record<string, number>>;
}

/** What people work with first: who gets a deal and its contact was given one enquiry, and the deal tells of it. */
const TELLING: readonly RecordKind[] = ['deal', 'lead', 'contact', 'company'];

/** Of all that a run gives to one person the most telling record: an enquiry counts once for each who gets something of it. */
export function enquiriesGiven(all: readonly PlannedAssignment[]): PlannedAssignment[] {
  const given = new Map<string, PlannedAssignment>();
  for (const one of all) {
    const before = given.get(one.person);
    if (!before || TELLING.indexOf(one.record) < TELLING.indexOf(before.record)) given.set(one.person, one);
  }
  return [...given.values()];
}
