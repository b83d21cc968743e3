import { Controller, Get, Inject, Param, Req, Res } from '@nestjs/common';
import { ApiExcludeController } from '@nestjs/swagger';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { IntakeDirectory, type PublicIntake } from '../intakes/intake-directory.service';
import { Public } from '../platform/auth/public';
import { ProblemError } from '../platform/errors/problem-error';
import { FORM_HEADERS, FormPages } from './form-pages.service';

/** Hosted forms at their public addresses. */
@ApiExcludeController()
@Public()
@Controller('f')
export class FormsController {
  constructor(
    @Inject(IntakeDirectory) private readonly intakes: IntakeDirectory,
    @Inject(FormPages) private readonly pages: FormPages,
  ) {}

  @Get(':slug')
  async open(@Param('slug') slug: string, @Req() request: FastifyRequest, @Res() reply: FastifyReply): Promise<void> {
    const intake = await this.#form(slug);
    const query = new URLSearchParams(request.url.split('?')[1] ?? '');
    void reply.headers(FORM_HEADERS).send(this.pages.open(intake, query, request.headers.referer));
  }

  @Get(':slug/thanks')
  async thanks(@Param('slug') slug: string, @Res() reply: FastifyReply): Promise<void> {
    void reply.headers(FORM_HEADERS).send(this.pages.thanks(await this.#form(slug)));
  }

  async #form(slug: string): Promise<PublicIntake> {
    const intake = await this.intakes.bySlug(slug);
    if (!intake?.form) throw new ProblemError('not-found', 'There is no form at this address.');
    return intake;
  }
}
