/** The first and the last day, as a date field has them; `''` is no bound. */
export interface Days {
  from: string;
  to: string;
}

/** From the beginning of the first day to the end of the last, where one is. */
export function periodOf({ from, to }: Days): { since?: string; before?: string } {
  const end = to ? new Date(`${to}T00:00`) : null;
  end?.setDate(end.getDate() + 1);
  return {
    ...(from ? { since: new Date(`${from}T00:00`).toISOString() } : {}),
    ...(end ? { before: end.toISOString() } : {}),
  };
}
