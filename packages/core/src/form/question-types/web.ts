import { ONE_LINE, type QuestionType } from '../question-type';

export const web: QuestionType = {
  name: 'web',
  label: 'Web address',
  holds: 'web',
  longest: 2_000,
  height: () => ONE_LINE,
  blank: (words) => words.required,
  read(given, _question, { words }) {
    try {
      const { protocol, hostname } = new URL(/^https?:\/\//i.test(given) ? given : `https://${given}`);
      if (/^https?:$/.test(protocol) && hostname.includes('.') && !/\s/.test(given)) return { value: given };
    } catch {
      // Said below.
    }
    return { code: 'not-a-web-address', message: words.web };
  },
  example: { takes: ['www.weir.example', 'www.weir.example'], refuses: 'weir' },
};
