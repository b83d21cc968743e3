import { Body, Controller, Get, HttpCode, Inject, Param, Post, Req, Res } from '@nestjs/common';
import { ApiExcludeController } from '@nestjs/swagger';
import { readVisit, type Visit } from '@haycart/core';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { IntakeDirectory } from '../intakes/intake-directory.service';
import { Public } from '../platform/auth/marks';
import { Open } from '../platform/commands/command';
import { ProblemError } from '../platform/errors/problem-error';
import { FloodGuard } from '../platform/flood-guard';
import { EntryLinks } from './entry-links.service';
import { FormHosts } from './form-hosts.service';
import { FormCounts } from './form-counts.service';
import { readSeen } from './seen';
import { FormPages } from './form-pages.service';
import { isPublicForm, type PublicForm } from './public-forms.service';
import { versionFor, versionTold } from './shown-version';

/** How often a minute one address may tell what it does at a form. */
const MOST_TOLD = 120;

/** Hosted forms at their public addresses. */
@ApiExcludeController()
@Public()
@Controller()
export class FormsController {
  readonly #floods = new FloodGuard();

  constructor(
    @Inject(IntakeDirectory) private readonly intakes: IntakeDirectory,
    @Inject(FormPages) private readonly pages: FormPages,
    @Inject(FormCounts) private readonly counts: FormCounts,
    @Inject(EntryLinks) private readonly entryLinks: EntryLinks,
    @Inject(FormHosts) private readonly hosts: FormHosts,
  ) {}

  @Get('f/:slug')
  @Open('Shows a form to a visitor')
  async open(@Param('slug') slug: string, @Req() request: FastifyRequest, @Res() reply: FastifyReply): Promise<void> {
    const query = queryOf(request);
    const { referer, 'accept-language': languages, 'user-agent': browser } = request.headers;
    const intake = await this.#form(slug, request);
    const secret = query.get('entry') ?? undefined;
    const entry = (await this.entryLinks.enteredBy(intake.id, secret)) ? secret : undefined;
    const form = entry ? intake : versionFor(intake, `${request.ip} ${browser}`, new Date());
    const { status, headers, page } = await this.pages.open(form, { query, referer, languages, entry });
    if (form.state === 'live' && !entry && status === 200)
      this.counts.count(form, { did: 'view', visit: visitOf(request, query) });
    void reply.code(status).headers(headers).send(page);
  }

  /** What the page's script tells: that somebody began, left at a question, or sent, and how long that took. */
  @Post('f/:slug/seen')
  @Open('Counts what a visitor saw of a form')
  @HttpCode(204)
  async seen(@Param('slug') slug: string, @Body() told: unknown, @Req() request: FastifyRequest): Promise<void> {
    const form = versionTold(await this.#form(slug, request), queryOf(request).get('version'));
    if (this.#floods.wait(`${form.id} ${request.ip}`, MOST_TOLD, Date.now())) return;
    const seen = readSeen(told, form);
    if (seen) this.counts.count(form, { ...seen, visit: visitOf(request, new URLSearchParams(seen.from)) });
  }

  /** What embeds a form elsewhere. It never changes with the form: the frame that it makes shows the latest. */
  @Get('embed/:file')
  @Open('Gives the script that puts a form into a page')
  async embed(@Param('file') file: string, @Req() request: FastifyRequest, @Res() reply: FastifyReply): Promise<void> {
    const form = await this.#form(file.replace(/\.js$/, ''), request);
    void reply
      .headers({
        'content-type': 'text/javascript; charset=utf-8',
        'cache-control': 'public, max-age=300',
        'access-control-allow-origin': '*',
        'cross-origin-resource-policy': 'cross-origin',
      })
      .send(await this.pages.embed(form));
  }

  /** The form at an address; on a company's own domain there are its own forms alone. */
  async #form(slug: string, { headers }: FastifyRequest): Promise<PublicForm> {
    const intake = await this.intakes.bySlug(slug);
    const owner = this.hosts.workspaceOf(headers.host);
    if (!intake || !isPublicForm(intake) || (owner !== undefined && owner !== intake.workspaceId))
      throw new ProblemError('not-found', 'There is no form at this address.');
    return intake;
  }
}

function queryOf({ url }: FastifyRequest): URLSearchParams {
  return new URLSearchParams(url.split('?')[1] ?? '');
}

function visitOf({ headers }: FastifyRequest, query: URLSearchParams): Visit {
  return readVisit({ query, headers: { referer: headers.referer, userAgent: headers['user-agent'] } });
}
