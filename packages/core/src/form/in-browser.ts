/** What the script of a hosted form runs in the browser: the code that checks its answers again on the server. */
export { checkAnswers, type Answers } from './check-answers';
export { arrivesInParts, isQuestion, type FormItem } from './definition';
export { formWords } from './form-words';
