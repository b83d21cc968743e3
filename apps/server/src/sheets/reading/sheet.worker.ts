import type { SheetRow } from '@haycart/core';
import { answerQuestions } from '../../platform/threads/answer-questions';
import { readFile, type ReadFile } from './read-file';
import type { SheetAnswer, SheetQuestion } from './sheet-reader';
import { UnreadableFile } from './zip-parts';

let file: ReadFile | null = null;

/** Reads one file in a thread of its own, that can be ended at any time. */
answerQuestions<SheetQuestion, SheetAnswer>(async (question) => {
  try {
    if ('bytes' in question) {
      file = await readFile(Buffer.from(question.bytes), question.choice);
      return { reading: file.reading };
    }
    const rows: SheetRow[] = [];
    while (rows.length < question.next) {
      const next = await file!.rows.next();
      if (next.done) break;
      rows.push(next.value);
    }
    return { rows };
  } catch (cause) {
    if (cause instanceof UnreadableFile) return { problem: cause.message };
    throw cause;
  }
});
