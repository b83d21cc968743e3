import { ONE_LINE, type QuestionType } from '../question-type';

/** A file arrives beside the answers; its answer tells its name, so that the ending can be checked. */
export const file: QuestionType = {
  name: 'file',
  label: 'File',
  holds: 'text',
  longest: 255,
  height: () => ONE_LINE,
  blank: (words) => words.file,
  read(given, { checks = {} }, { words }) {
    const ending = given.slice(given.lastIndexOf('.') + 1).toLowerCase();
    return checks.fileTypes?.length && !checks.fileTypes.includes(ending)
      ? { code: 'wrong-file-type', message: words.fileType.replace('{n}', checks.fileTypes.join(', ')) }
      : { value: given };
  },
  example: { question: { checks: { fileTypes: ['pdf'] } }, takes: ['plan.PDF', 'plan.PDF'], refuses: 'plan.exe' },
};
