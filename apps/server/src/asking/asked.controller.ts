import { Body, Controller, Get, Inject, Param, Post, Req, Res } from '@nestjs/common';
import { ApiExcludeController } from '@nestjs/swagger';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { Public } from '../platform/auth/marks';
import { Open } from '../platform/commands/command';
import { AskedPages } from './asked-pages.service';
import { sendPage } from './send-page';

/** The pages behind the links in such mails. Opening one changes nothing, so that programs which look at mail may. */
@ApiExcludeController()
@Public()
@Controller('ask/:secret')
export class AskedController {
  constructor(@Inject(AskedPages) private readonly pages: AskedPages) {}

  @Get()
  @Open('Shows what somebody is asked by mail')
  async open(
    @Param('secret') secret: string,
    @Req() { headers }: FastifyRequest,
    @Res() reply: FastifyReply,
  ): Promise<void> {
    sendPage(reply, await this.pages.open(secret, headers['accept-language']));
  }

  @Post()
  @Open('Takes the answer of somebody who was asked by mail')
  async answer(
    @Param('secret') secret: string,
    @Body() body: unknown,
    @Req() { headers }: FastifyRequest,
    @Res() reply: FastifyReply,
  ): Promise<void> {
    sendPage(reply, await this.pages.answer(secret, body, headers['accept-language']));
  }
}
