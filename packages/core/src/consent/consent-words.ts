/** What a contact reads who follows a link in a mail about their consent. `{address}` stands for where the mail went. */
export interface ConsentWords {
  title: string;
  text: string;
  button: string;
  thanks: string;
  done: string;
}

const WORDS: Record<string, Record<'given' | 'withdrawn', ConsentWords>> = {
  en: {
    given: {
      title: 'May we write to you?',
      text: 'Press the button to confirm that we may write to {address}. You agreed to this:',
      button: 'Yes, you may',
      thanks: 'Thank you',
      done: 'We may write to {address}. Each mail has a link by which you end that.',
    },
    withdrawn: {
      title: 'No more of these mails?',
      text: 'Press the button, and we write no more of them to {address}.',
      button: 'No more, please',
      thanks: 'It is done',
      done: 'We write no more of these mails to {address}.',
    },
  },
  nl: {
    given: {
      title: 'Mogen we je schrijven?',
      text: 'Druk op de knop om te bevestigen dat we mogen schrijven naar {address}. Je stemde hiermee in:',
      button: 'Ja, dat mag',
      thanks: 'Bedankt',
      done: 'We mogen schrijven naar {address}. In elke mail staat een link waarmee je dat stopt.',
    },
    withdrawn: {
      title: 'Deze mails niet meer?',
      text: 'Druk op de knop, dan sturen we ze niet meer naar {address}.',
      button: 'Niet meer, graag',
      thanks: 'Het is gebeurd',
      done: 'We sturen deze mails niet meer naar {address}.',
    },
  },
  de: {
    given: {
      title: 'Dürfen wir Ihnen schreiben?',
      text: 'Bitte bestätigen Sie mit dem Knopf, dass wir an {address} schreiben dürfen. Sie haben dem zugestimmt:',
      button: 'Ja, das dürfen Sie',
      thanks: 'Vielen Dank',
      done: 'Wir dürfen an {address} schreiben. In jeder Mail steht ein Link, mit dem Sie das beenden.',
    },
    withdrawn: {
      title: 'Keine solchen Mails mehr?',
      text: 'Drücken Sie den Knopf, dann senden wir keine mehr an {address}.',
      button: 'Bitte keine mehr',
      thanks: 'Erledigt',
      done: 'Wir senden keine solchen Mails mehr an {address}.',
    },
  },
};

/** The words in a language (BCP 47); in English where there are none. */
export function consentWords(language: string, says: 'given' | 'withdrawn', address: string): ConsentWords {
  const words = (WORDS[language.split('-')[0]!.toLowerCase()] ?? WORDS.en!)[says];
  return withAddress(words, address);
}

/** The words with an address where `{address}` stands. */
export function withAddress<Words extends object>(words: Words, address: string): Words {
  // By a function, since `$` means something in a replacement.
  const put = (text: string) => text.replace('{address}', () => address);
  return Object.fromEntries(Object.entries(words).map(([name, text]) => [name, put(text as string)])) as Words;
}
