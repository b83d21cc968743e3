/** What a form says of itself, in the languages that visitors of a form may need. */
export interface FormWords {
  /** The language of these words (BCP 47). */
  language: string;
  required: string;
  requiredChoice: string;
  requiredConsent: string;
  email: string;
  workEmail: string;
  throwAway: string;
  phone: string;
  web: string;
  wholeNumber: string;
  number: string;
  money: string;
  date: string;
  choice: string;
  /** `{n}`: the limit. */
  longest: string;
  shortest: string;
  least: string;
  most: string;
  pattern: string;
  file: string;
  fileType: string;
  fileSize: string;
  fileContent: string;
  optional: string;
  next: string;
  back: string;
  /** `{n}` of `{all}`. */
  step: string;
  again: string;
  yes: string;
  no: string;
  street: string;
  postcode: string;
  town: string;
  country: string;
  closed: string;
  colleagues: string;
  signIn: string;
  choose: string;
}

const en: FormWords = {
  language: 'en',
  required: 'Please fill this in.',
  requiredChoice: 'Please choose one of the answers.',
  requiredConsent: 'Please tick this to go on.',
  email: 'Please check the address: it should look like name@example.com.',
  workEmail: 'Please give your address at work, not one of a free mail service.',
  throwAway: 'Please give an address that you go on reading.',
  phone: 'Please give a phone number with 6 to 15 digits.',
  web: 'Please give a web address such as www.example.com.',
  wholeNumber: 'Please give a whole number.',
  number: 'Please give a number.',
  money: 'Please give an amount such as 48,000.',
  date: 'Please give a date.',
  choice: 'Please choose one of the answers.',
  longest: 'Please use at most {n} characters.',
  shortest: 'Please use at least {n} characters.',
  least: 'Please give {n} or more.',
  most: 'Please give {n} or less.',
  pattern: 'Please give it in the shape {n}.',
  file: 'Please choose a file.',
  fileType: 'Please choose a file of these kinds: {n}.',
  fileSize: 'Please choose a file of at most {n} MB.',
  fileContent: 'This file is not what its name says.',
  optional: 'optional',
  next: 'Next',
  back: 'Back',
  step: 'Step {n} of {all}',
  again: 'needs another look:',
  yes: 'Yes',
  no: 'No',
  street: 'Street and number',
  postcode: 'Postcode',
  town: 'Town',
  country: 'Country',
  closed: 'This form is closed and takes no answers any more.',
  colleagues: 'This form is for colleagues. It opens after signing in, or with an entry link.',
  signIn: 'Sign in',
  choose: 'Please choose',
};

const nl: FormWords = {
  language: 'nl',
  required: 'Vul dit in.',
  requiredChoice: 'Kies een van de antwoorden.',
  requiredConsent: 'Vink dit aan om verder te gaan.',
  email: 'Controleer het adres: het hoort eruit te zien als naam@example.com.',
  workEmail: 'Geef je adres op het werk, niet dat van een gratis maildienst.',
  throwAway: 'Geef een adres dat je blijft lezen.',
  phone: 'Geef een telefoonnummer met 6 tot 15 cijfers.',
  web: 'Geef een webadres zoals www.example.com.',
  wholeNumber: 'Geef een heel getal.',
  number: 'Geef een getal.',
  money: 'Geef een bedrag zoals 48.000.',
  date: 'Geef een datum.',
  choice: 'Kies een van de antwoorden.',
  longest: 'Gebruik hoogstens {n} tekens.',
  shortest: 'Gebruik minstens {n} tekens.',
  least: 'Geef {n} of meer.',
  most: 'Geef {n} of minder.',
  pattern: 'Geef het in de vorm {n}.',
  file: 'Kies een bestand.',
  fileType: 'Kies een bestand van deze soorten: {n}.',
  fileSize: 'Kies een bestand van hoogstens {n} MB.',
  fileContent: 'Dit bestand is niet wat zijn naam zegt.',
  optional: 'niet verplicht',
  next: 'Verder',
  back: 'Terug',
  step: 'Stap {n} van {all}',
  again: 'vraagt nog aandacht:',
  yes: 'Ja',
  no: 'Nee',
  street: 'Straat en nummer',
  postcode: 'Postcode',
  town: 'Plaats',
  country: 'Land',
  closed: 'Dit formulier is gesloten en neemt geen antwoorden meer aan.',
  colleagues: 'Dit formulier is voor collega’s. Het opent na het inloggen, of met een invoerlink.',
  signIn: 'Inloggen',
  choose: 'Maak een keuze',
};

const de: FormWords = {
  language: 'de',
  required: 'Bitte füllen Sie dies aus.',
  requiredChoice: 'Bitte wählen Sie eine der Antworten.',
  requiredConsent: 'Bitte kreuzen Sie dies an, um fortzufahren.',
  email: 'Bitte prüfen Sie die Adresse: Sie sollte aussehen wie name@example.com.',
  workEmail: 'Bitte geben Sie Ihre Adresse bei der Arbeit an, nicht die eines kostenlosen Maildienstes.',
  throwAway: 'Bitte geben Sie eine Adresse an, die Sie weiter lesen.',
  phone: 'Bitte geben Sie eine Telefonnummer mit 6 bis 15 Ziffern an.',
  web: 'Bitte geben Sie eine Webadresse wie www.example.com an.',
  wholeNumber: 'Bitte geben Sie eine ganze Zahl an.',
  number: 'Bitte geben Sie eine Zahl an.',
  money: 'Bitte geben Sie einen Betrag wie 48.000 an.',
  date: 'Bitte geben Sie ein Datum an.',
  choice: 'Bitte wählen Sie eine der Antworten.',
  longest: 'Bitte höchstens {n} Zeichen.',
  shortest: 'Bitte mindestens {n} Zeichen.',
  least: 'Bitte {n} oder mehr.',
  most: 'Bitte {n} oder weniger.',
  pattern: 'Bitte in der Form {n}.',
  file: 'Bitte wählen Sie eine Datei.',
  fileType: 'Bitte wählen Sie eine Datei dieser Arten: {n}.',
  fileSize: 'Bitte wählen Sie eine Datei von höchstens {n} MB.',
  fileContent: 'Diese Datei ist nicht, was ihr Name sagt.',
  optional: 'freiwillig',
  next: 'Weiter',
  back: 'Zurück',
  step: 'Schritt {n} von {all}',
  again: 'bitte noch einmal ansehen:',
  yes: 'Ja',
  no: 'Nein',
  street: 'Straße und Hausnummer',
  postcode: 'Postleitzahl',
  town: 'Ort',
  country: 'Land',
  closed: 'Dieses Formular ist geschlossen und nimmt keine Antworten mehr an.',
  colleagues:
    'Dieses Formular ist für Kolleginnen und Kollegen. Es öffnet sich nach der Anmeldung oder mit einem Eingabelink.',
  signIn: 'Anmelden',
  choose: 'Bitte wählen',
};

const WORDS: Record<string, FormWords> = { en, nl, de };

/** The languages in which a form can speak by itself; others get these words in English. */
export const FORM_LANGUAGES: readonly string[] = Object.keys(WORDS);

export function formWords(language: string): FormWords {
  return WORDS[language.split('-')[0]!.toLowerCase()] ?? en;
}

/** Puts a limit into a text such as `at most {n}`. */
export function withLimit(text: string, n: string | number): string {
  return text.replace('{n}', String(n));
}
