import { answerQuestions } from '../platform/threads/answer-questions';
import { LookThrough, type FromScan, type ToScan } from './look-through';

/** Compares records beside the server’s own work: everything it knows comes in messages, and it answers each. */
const through = new LookThrough();
answerQuestions<ToScan, FromScan>((message) => through.answer(message));
