import { Inject, Injectable } from '@nestjs/common';
import {
  answeredPayload,
  checkAnswers,
  ENTRY,
  fitsEnding,
  formWords,
  isFreeMailDomain,
  joinedAnswers,
  localised,
  normalPhone,
  questionsOf,
  readVisit,
  SET_ASIDE_FROM,
  suspicionOf,
  withLimit,
  type AnsweredFile,
  type FormDefinition,
  type FormWords,
  type JsonObject,
  type RefusedAnswer,
  type Suspicion,
} from '@haycart/core';
import { FloodGuard } from '../platform/flood-guard';
import { EntryLinks } from './entry-links.service';
import { PublicForms, type PublicForm } from './public-forms.service';
import { isThrowAwayDomain } from './throw-away';
import { versionTold } from './shown-version';

/** A post to a form, read: the version that it answers, who entered it, and its answers. */
export interface ReadPost {
  form: PublicForm;
  /** The colleague who entered it, with their link. */
  entry: { secret: string; person: string } | null;
  answers: ReadAnswers[];
}

/** What was answered: what is kept, and what is not taken. */
export interface ReadAnswers {
  payload: JsonObject | null;
  refused: RefusedAnswer[];
  /** Present when it is to be set aside. */
  suspicion?: Suspicion;
}

interface SentFile {
  id: string;
  part: string;
  name: string;
  size: number;
  /** Its first bytes. */
  begin: Buffer;
}

const MEGABYTE = 1_000_000;
const NOT_SUSPICIOUS: Suspicion = { score: 0, reasons: [] };

/** Reads what is posted to forms, by the code that their pages ran already. */
@Injectable()
export class FormAnswers {
  readonly #visitors = new FloodGuard();

  constructor(
    @Inject(PublicForms) private readonly forms: PublicForms,
    @Inject(EntryLinks) private readonly entryLinks: EntryLinks,
  ) {}

  /**
   * Reads what was sent together; what could not be read at all is kept as it came. What a colleague enters is never
   * suspicious, however fast they are.
   */
  async read(
    intake: PublicForm,
    sent: readonly (JsonObject | null)[],
    files: readonly SentFile[],
    query: URLSearchParams,
    from: { receivedAt: Date; address: string },
  ): Promise<ReadPost> {
    const answered = versionTold(intake, readVisit({ handedOver: sent[0]?._visit }).formVersion);
    const entry = await this.#entry(intake, sent[0]?.[ENTRY]);
    const manner = {
      receivedAt: from.receivedAt.toISOString(),
      fromVisitor: entry ? 0 : this.#visitors.count(`${intake.id} ${from.address}`, Date.now()),
    };
    const { form, blocked } = await this.forms.dressed(answered);
    const shownIn = localised(form, query.get('lang') ?? form.language);
    const answers = sent.map((payload): ReadAnswers => {
      if (!payload) return { payload, refused: [] };
      const { [ENTRY]: _, ...given } = payload;
      const read = readAnswers(shownIn, given, files);
      // What is refused is looked at no further: an answer that is too long costs nothing more.
      const suspicion = entry || read.refused.length ? NOT_SUSPICIOUS : suspicionOf(form, given, blocked, manner);
      return { ...read, ...(suspicion.score >= SET_ASIDE_FROM ? { suspicion } : {}) };
    });
    return { form: answered, entry, answers };
  }

  async #entry({ id }: PublicForm, secret: unknown): Promise<ReadPost['entry']> {
    const holder = await this.entryLinks.enteredBy(id, secret);
    return holder && { secret: secret as string, person: holder.person.key };
  }
}

function readAnswers(form: FormDefinition, sent: JsonObject, files: readonly SentFile[]): ReadAnswers {
  const words = formWords(form.language);
  const payload = joinedAnswers(form, sent);
  const { refused, shown } = checkAnswers(form, payload, {
    words,
    isFreeMail: isFreeMailDomain,
    isThrowAway: isThrowAwayDomain,
    isPhone: (text, country) => normalPhone(text, country).ok,
  });
  const known = new Set(refused.map(({ name }) => name));
  const wrongFiles = questionsOf(form).flatMap((question): RefusedAnswer[] => {
    const { name, type, checks = {} } = question;
    if (type !== 'file' || !shown.has(name) || known.has(name)) return [];
    return [payload[name] ?? []].flat().flatMap((answer) => fileProblem(name, answer, checks.largest, files, words));
  });
  return {
    payload: answeredPayload(form, payload, shown),
    refused: [...refused, ...wrongFiles, ...unasked(form, files)],
  };
}

/** Files that came where the form asks for none. */
function unasked(form: FormDefinition, files: readonly SentFile[]): RefusedAnswer[] {
  const asking = new Set(questionsOf(form).flatMap(({ name, type }) => (type === 'file' ? [name] : [])));
  return files
    .filter(({ part }) => !asking.has(part))
    .map(({ part }) => ({ name: part, code: 'not-a-file', message: 'The form asks for no file here.' }));
}

function fileProblem(
  name: string,
  answer: unknown,
  largest: number | undefined,
  files: readonly SentFile[],
  words: FormWords,
): RefusedAnswer[] {
  const file = files.find(({ id }) => id === (answer as Partial<AnsweredFile> | null)?.file);
  if (!file) return answer === '' ? [] : [{ name, code: 'not-a-file', message: words.file }];
  if (largest !== undefined && file.size > largest)
    return [{ name, code: 'file-too-large', message: withLimit(words.fileSize, Math.floor(largest / MEGABYTE)) }];
  return fitsEnding(file.begin, file.name) ? [] : [{ name, code: 'wrong-file-type', message: words.fileContent }];
}
