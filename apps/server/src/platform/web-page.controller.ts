import { Controller, Get, Inject, Req, Res } from '@nestjs/common';
import { ApiExcludeController } from '@nestjs/swagger';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { Public } from './auth/marks';
import type { Config } from './config';
import { ProblemError } from './errors/problem-error';
import { CONFIG } from './tokens';

/** The web application's page, at every address that is nothing else; what it shows there is its own affair. */
@ApiExcludeController()
@Public()
@Controller()
export class WebPageController {
  constructor(@Inject(CONFIG) private readonly config: Config) {}

  @Get(['', '*'])
  async page(@Req() request: FastifyRequest, @Res() reply: FastifyReply): Promise<void> {
    if (!this.config.webFolder || /^\/(api|in|f|forms|assets|embed)(\/|$)/.test(request.url))
      throw new ProblemError('not-found', 'There is nothing at this address.');
    await reply
      .header('cache-control', 'no-cache')
      .sendFile('index.html', this.config.webFolder, { cacheControl: false });
  }
}
