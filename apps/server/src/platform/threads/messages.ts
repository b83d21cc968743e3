/** What goes to a thread: questions are told apart by their ids. */
export interface Asked {
  id: number;
  question: unknown;
}

/** What a thread threw. An error’s code is lost on its way between threads unless it goes by itself. */
export interface ThreadFailure {
  message: string;
  code?: string | undefined;
  stack?: string | undefined;
}

/** What comes back. */
export type Answered = { id: number; answer: unknown } | { id: number; failure: ThreadFailure };
