import { withAddress } from '../consent/consent-words';

/** What a visitor reads who is asked to confirm that an address is theirs. `{address}` stands for it. */
export interface ConfirmWords {
  title: string;
  text: string;
  button: string;
  thanks: string;
  confirmed: string;
  late: string;
  lateText: string;
}

const WORDS: Record<string, ConfirmWords> = {
  en: {
    title: 'Is this you?',
    text: 'Press the button to confirm that {address} is your address. What you sent is passed on from then on.',
    button: 'Yes, it is me',
    thanks: 'Thank you',
    confirmed: '{address} is confirmed, and what you sent was passed on.',
    late: 'This link does not work any more',
    lateText: 'It was for a short time only. Please fill in the form again, and you get a new one.',
  },
  nl: {
    title: 'Ben jij dit?',
    text: 'Druk op de knop om te bevestigen dat {address} jouw adres is. Vanaf dan wordt doorgegeven wat je hebt gestuurd.',
    button: 'Ja, dat ben ik',
    thanks: 'Bedankt',
    confirmed: '{address} is bevestigd, en wat je hebt gestuurd is doorgegeven.',
    late: 'Deze link werkt niet meer',
    lateText: 'Hij was maar korte tijd geldig. Vul het formulier opnieuw in, dan krijg je een nieuwe.',
  },
  de: {
    title: 'Sind Sie das?',
    text: 'Bitte bestätigen Sie mit dem Knopf, dass {address} Ihre Adresse ist. Danach wird weitergegeben, was Sie gesendet haben.',
    button: 'Ja, das bin ich',
    thanks: 'Vielen Dank',
    confirmed: '{address} ist bestätigt, und was Sie gesendet haben, wurde weitergegeben.',
    late: 'Dieser Link gilt nicht mehr',
    lateText: 'Er galt nur kurze Zeit. Bitte füllen Sie das Formular noch einmal aus, dann bekommen Sie einen neuen.',
  },
};

/** The languages that there are words in, the first of them for everybody else. */
export const CONFIRM_LANGUAGES = Object.keys(WORDS);

/** The words in a language (BCP 47); in English where there are none. */
export function confirmWords(language: string, address: string): ConfirmWords {
  const words = WORDS[language.split('-')[0]!.toLowerCase()] ?? WORDS.en!;
  return withAddress(words, address);
}
