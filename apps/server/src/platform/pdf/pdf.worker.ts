import { answerQuestions } from '../threads/answer-questions';
import type { PdfQuestion } from './pdf-writer.service';
import { writePdf } from './write-pdf';

answerQuestions<PdfQuestion, Uint8Array>(({ content, at }) => writePdf(content, new Date(at)));
