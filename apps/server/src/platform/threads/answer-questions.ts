import { parentPort } from 'node:worker_threads';
import type { Answered, Asked } from './messages';

/** Inside a thread: answers each question that the server asks it, by whatever `answer` gives or throws. */
export function answerQuestions<Question, Answer>(answer: (question: Question) => Answer | Promise<Answer>): void {
  const port = parentPort!;
  port.on('message', ({ id, question }: Asked) => {
    void (async () => {
      const tell = (message: Answered) => port.postMessage(message);
      try {
        tell({ id, answer: await answer(question as Question) });
      } catch (thrown) {
        const { message, code, stack } = thrown as Error & { code?: string };
        tell({ id, failure: { message, code, stack } });
      }
    })();
  });
}
