import { randomBytes, randomUUID } from 'node:crypto';
import type { ServerResponse } from 'node:http';
import { Inject, Injectable } from '@nestjs/common';
import {
  bestLanguage,
  CONFIRM_LANGUAGES,
  followFields,
  formWords,
  inColoursOf,
  languagesOf,
  localised,
  expectedHeight,
  joinedAnswers,
  PLAIN_THEME,
  withLimit,
  type FormDefinition,
  type JsonObject,
  type RefusedAnswer,
} from '@haycart/core';
import type { Html } from './html';
import type { WorkspaceTx } from '../platform/database/database';
import { DestinationService } from '../destination/destination.service';
import { FORM_STYLE } from '../platform/tokens';
import { embedCode } from './embed-code';
import { PublicForms, type PublicForm } from './public-forms.service';
import { formHeaders } from './form-headers';
import {
  answersFromAddress,
  formPage,
  messagePage,
  otherLanguages,
  thanksPage,
  visitFromAddress,
  type FormPage,
  type ShownForm,
} from './form-page';
import { ThemesService } from './themes.service';

/** What a visitor asked with. */
export interface Asked {
  query: URLSearchParams;
  referer?: string | undefined;
  /** `Accept-Language` */
  languages?: string | undefined;
  /** The entry link of the colleague who asks, if it is one for this form. */
  entry?: string | undefined;
}

/** A page with the status and headers that it must be sent with. */
export interface AnsweredPage {
  status: number;
  headers: Record<string, string>;
  page: string;
}

/** What a page says that is no form. */
export interface Said {
  status?: number;
  title: string;
  text: string;
  /** The words of a button that posts to this page. */
  press?: string;
  /** What stands under the text. */
  more?: Html;
}

/** What a page wears that belongs to no form. */
const NO_FORM: FormDefinition = {
  format: 'haycart.form/1',
  title: '',
  items: [],
  button: '',
  after: { do: 'thank', title: '', text: '' },
  language: CONFIRM_LANGUAGES[0]!,
  translations: Object.fromEntries(CONFIRM_LANGUAGES.slice(1).map((language) => [language, {}])),
};

/** The pages of hosted forms. */
@Injectable()
export class FormPages {
  constructor(
    @Inject(PublicForms) private readonly forms: PublicForms,
    @Inject(ThemesService) private readonly themes: ThemesService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(FORM_STYLE) private readonly style: string,
  ) {}

  /** The empty form, or what a closed one says; the address it was opened with carries the visit on. */
  async open(intake: PublicForm, asked: Asked): Promise<AnsweredPage> {
    const shown = await this.#shown(intake, asked);
    if (intake.state === 'closed') return answered(shown, closedPage(intake, shown));
    if (intake.forColleagues && !asked.entry) return answered(shown, colleaguesPage(intake, shown), 401);
    return answered(
      shown,
      askingPage(intake, shown, {
        entry: asked.entry,
        visit: visitFromAddress(asked.query, asked.referer, this.#known(intake, shown)),
        answers: answersFromAddress(shown.form, asked.query),
      }),
    );
  }

  /** The script by which other pages embed a form. */
  async embed(intake: PublicForm): Promise<string> {
    const { form, theme } = await this.forms.dressed(intake);
    return embedCode(intake.slug!, form.title, expectedHeight(form, theme?.spacing));
  }

  /** A form that is not published, for its editor. */
  async preview(tx: WorkspaceTx, form: FormDefinition, language = form.language): Promise<string> {
    const { fields } = await this.destinations.load(tx);
    return formPage({
      form: localised(followFields(form, fields), language),
      theme: (await this.themes.look(tx, form.theme)) ?? PLAIN_THEME,
      others: [],
      nonce: newNonce(),
      embedded: false,
      style: this.style,
      once: '',
      visit: '{}',
    });
  }

  /**
   * A page for one reader, by a link that nobody else shall have: in the look of a form and the best of its languages, without
   * the code that a form brings, and never kept or handed on.
   */
  async say(
    tx: WorkspaceTx | null,
    form: FormDefinition | null,
    languages: string | undefined,
    said: (language: string) => Said,
  ): Promise<AnsweredPage> {
    const theme = tx && form ? await this.themes.look(tx, form.theme) : null;
    const language = bestLanguage(form ?? NO_FORM, languages ?? '');
    const { status = 200, title, text, press, more } = said(language);
    const shown: ShownForm = {
      form: { ...NO_FORM, title, language },
      theme: theme ?? PLAIN_THEME,
      others: [],
      nonce: newNonce(),
      embedded: false,
      style: this.style,
    };
    const answer = answered(shown, messagePage(shown, title, text, { press, more }), status);
    const apart = { 'referrer-policy': 'no-referrer', 'x-robots-tag': 'noindex', 'x-frame-options': 'DENY' };
    return { ...answer, headers: { ...answer.headers, ...apart } };
  }

  /** Answers a post: with thanks, the form again, or by leading on. */
  async sendThanks(response: ServerResponse, intake: PublicForm, asked: Asked, answers: JsonObject): Promise<void> {
    const shown = await this.#shown(intake, asked);
    const { after } = shown.form;
    if (after.do === 'redirect') {
      response.writeHead(303, { location: new URL(after.to).href, 'content-length': 0 });
      response.end();
      return;
    }
    if (after.do === 'thank') return send(response, 200, shown, thanksPage(shown, answers));
    const { entry } = asked;
    send(response, 200, shown, askingPage(intake, shown, { entry, visit: visitIn(answers), said: after.title }));
  }

  /** The form again, with what was typed and what is wrong with it. */
  async sendRefused(
    response: ServerResponse,
    intake: PublicForm,
    asked: Asked,
    answers: JsonObject,
    refused: readonly RefusedAnswer[],
  ): Promise<void> {
    const shown = await this.#shown(intake, asked);
    const { entry } = asked;
    send(
      response,
      422,
      shown,
      askingPage(intake, shown, {
        entry,
        visit: visitIn(answers),
        answers: joinedAnswers(shown.form, answers),
        refused,
      }),
    );
  }

  /** What is said when more was sent than is taken; the browser's way back keeps what was typed. */
  async sendTooLarge(response: ServerResponse, intake: PublicForm, asked: Asked, most: number): Promise<void> {
    const shown = await this.#shown(intake, asked);
    const words = formWords(shown.form.language);
    response.shouldKeepAlive = false;
    const size = withLimit(words.fileSize, Math.floor(most / 1_048_576));
    send(response, 413, shown, messagePage(shown, shown.form.title, size));
  }

  async sendForColleagues(response: ServerResponse, intake: PublicForm, asked: Asked): Promise<void> {
    const shown = await this.#shown(intake, asked);
    send(response, 401, shown, colleaguesPage(intake, shown));
  }

  async sendClosed(response: ServerResponse, intake: PublicForm, asked: Asked): Promise<void> {
    const shown = await this.#shown(intake, asked);
    send(response, 409, shown, closedPage(intake, shown));
  }

  async #shown(intake: PublicForm, { query, languages = '' }: Asked): Promise<ShownForm> {
    const { form, theme } = await this.forms.dressed(intake);
    const wanted = query.get('lang') ?? '';
    const language = languagesOf(form).includes(wanted) ? wanted : bestLanguage(form, languages);
    return {
      form: localised(form, language),
      theme: inColoursOf(theme ?? PLAIN_THEME, {
        background: query.get('background'),
        ink: query.get('ink'),
        accent: query.get('accent'),
      }),
      others: otherLanguages(form, language, intake.slug!, query),
      nonce: newNonce(),
      embedded: query.get('embed') === '1',
      style: this.style,
    };
  }

  #known(intake: PublicForm, { form }: ShownForm): Record<string, string> {
    return { formVersion: String(intake.version), language: form.language };
  }
}

/** The form, ready to be sent. */
function askingPage(
  intake: PublicForm,
  shown: ShownForm,
  rest: Pick<FormPage, 'entry' | 'visit' | 'answers' | 'refused' | 'said'>,
): string {
  return formPage({
    ...shown,
    ...rest,
    action: actionOf(intake, shown),
    // What colleagues do says nothing of visitors, and is not counted.
    ...(rest.entry ? {} : { seen: `/f/${intake.slug}/seen?version=${intake.version}` }),
    once: randomUUID(),
  });
}

/** The visit that a page handed over, to be handed on. */
function visitIn({ _visit: visit }: JsonObject): string {
  return typeof visit === 'string' ? visit : '{}';
}

function actionOf(intake: PublicForm, { form, embedded }: ShownForm): string {
  return `/in/${intake.key}?lang=${form.language}${embedded ? '&embed=1' : ''}`;
}

function closedPage({ closedMessage }: PublicForm, shown: ShownForm): string {
  return messagePage(shown, shown.form.title, closedMessage ?? formWords(shown.form.language).closed);
}

/** What anybody but a colleague sees of a form for colleagues. */
function colleaguesPage({ key }: PublicForm, shown: ShownForm): string {
  const { colleagues, signIn } = formWords(shown.form.language);
  return messagePage(shown, shown.form.title, colleagues, {
    link: { address: `/intakes/${key}/entry`, text: signIn },
  });
}

function answered(shown: ShownForm, page: string, status = 200): AnsweredPage {
  return { status, headers: formHeaders(shown.form, shown.nonce), page };
}

function send(response: ServerResponse, status: number, shown: ShownForm, page: string): void {
  const body = Buffer.from(page);
  response.writeHead(status, { ...formHeaders(shown.form, shown.nonce), 'content-length': body.length });
  response.end(body);
}

function newNonce(): string {
  return randomBytes(12).toString('base64');
}
