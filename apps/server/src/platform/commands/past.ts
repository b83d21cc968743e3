/** The verbs that commands begin with, as they are said of what was done. */
const PAST: Record<string, string> = {
  Adds: 'Added',
  Agrees: 'Agreed',
  Brings: 'Brought',
  Cancels: 'Cancelled',
  Changes: 'Changed',
  Compares: 'Compared',
  Decides: 'Decided',
  Deletes: 'Deleted',
  Ends: 'Ended',
  Gives: 'Gave',
  Has: 'Had',
  Keeps: 'Kept',
  Links: 'Linked',
  Looks: 'Looked',
  Makes: 'Made',
  Marks: 'Marked',
  Moves: 'Moved',
  Names: 'Named',
  Opens: 'Opened',
  Orders: 'Ordered',
  Pauses: 'Paused',
  Publishes: 'Published',
  Puts: 'Put',
  Records: 'Recorded',
  Removes: 'Removed',
  Replaces: 'Replaced',
  Resumes: 'Resumed',
  Routes: 'Routed',
  Saves: 'Saved',
  Sends: 'Sent',
  Sets: 'Set',
  Signs: 'Signed',
  Stops: 'Stopped',
  Takes: 'Took',
  Writes: 'Wrote',
};

/** What a command does, as something that was done: `Publishes a route` is `Published a route`. @throws Error for a verb that is not known. */
export function inThePast(summary: string): string {
  const [verb = '', ...rest] = summary.split(' ');
  const past = PAST[verb];
  if (!past) throw new Error(`Say how “${verb}” is said of what was done, in past.ts.`);
  return [past, ...rest].join(' ');
}
