import { Controller, Get, Inject, Param, Post, Req, Res } from '@nestjs/common';
import { ApiExcludeController } from '@nestjs/swagger';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { Public } from '../platform/auth/marks';
import { Open } from '../platform/commands/command';
import { ConsentPages } from './consent-pages.service';
import { sendPage } from './send-page';

/**
 * The pages behind the links by which contacts say what they agree to. Opening one changes nothing. A mail program posts to it
 * when its reader wants no more (RFC 8058), as the button of the page does.
 */
@ApiExcludeController()
@Public()
@Controller('consent/:secret')
export class ConsentController {
  constructor(@Inject(ConsentPages) private readonly pages: ConsentPages) {}

  @Get()
  @Open('Shows a contact what they agree to')
  async open(
    @Param('secret') secret: string,
    @Req() { headers }: FastifyRequest,
    @Res() reply: FastifyReply,
  ): Promise<void> {
    sendPage(reply, await this.pages.open(secret, headers['accept-language']));
  }

  @Post()
  @Open('Takes what a contact agrees to')
  async say(
    @Param('secret') secret: string,
    @Req() { headers }: FastifyRequest,
    @Res() reply: FastifyReply,
  ): Promise<void> {
    sendPage(reply, await this.pages.say(secret, headers['accept-language']));
  }
}
