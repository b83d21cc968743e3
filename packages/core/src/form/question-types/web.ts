import type { QuestionType } from '../question-type';

export const web: QuestionType = {
  name: 'web',
  label: 'Web address',
  holds: 'web',
  longest: 2_000,
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
