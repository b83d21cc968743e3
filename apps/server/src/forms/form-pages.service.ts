import { randomUUID } from 'node:crypto';
import type { ServerResponse } from 'node:http';
import { Injectable } from '@nestjs/common';
import type { JsonObject, RefusedAnswer } from '@haycart/core';
import type { PublicIntake } from '../intakes/intake-directory.service';
import { formPage, messagePage, visitFromAddress } from './form-page';

/** A form's pages may load nothing but their own style, script and font, and may only post back here. */
export const FORM_HEADERS = {
  'content-type': 'text/html; charset=utf-8',
  'content-security-policy':
    "default-src 'none'; style-src 'self'; script-src 'self'; font-src 'self'; img-src 'self' data:; form-action 'self'; frame-ancestors 'self'; base-uri 'none'",
  'referrer-policy': 'strict-origin-when-cross-origin',
  'x-content-type-options': 'nosniff',
  'cache-control': 'no-store',
} as const;

/** The pages of hosted forms. */
@Injectable()
export class FormPages {
  /** The empty form; the address it was opened with carries the visit on. */
  open(intake: PublicIntake, query: URLSearchParams, referer: string | undefined): string {
    if (intake.state === 'closed') return closedPage(intake);
    return formPage({
      form: intake.form!,
      action: `/in/${intake.key}`,
      once: randomUUID(),
      visit: visitFromAddress(query, referer),
    });
  }

  thanks({ form }: PublicIntake): string {
    return messagePage(form!.language, form!.thanks.title, form!.thanks.text);
  }

  /** The form again, with what was typed and what is wrong with it. */
  sendRefused(
    response: ServerResponse,
    intake: PublicIntake,
    answers: JsonObject,
    refused: readonly RefusedAnswer[],
  ): void {
    const visit = typeof answers._visit === 'string' ? answers._visit : '{}';
    send(
      response,
      422,
      formPage({ form: intake.form!, action: `/in/${intake.key}`, once: randomUUID(), visit, answers, refused }),
    );
  }

  sendClosed(response: ServerResponse, intake: PublicIntake): void {
    send(response, 409, closedPage(intake));
  }
}

function closedPage({ form }: PublicIntake): string {
  return messagePage(form!.language, form!.title, 'This form is closed and takes no answers any more.');
}

function send(response: ServerResponse, status: number, page: string): void {
  const body = Buffer.from(page);
  response.writeHead(status, { ...FORM_HEADERS, 'content-length': body.length });
  response.end(body);
}
