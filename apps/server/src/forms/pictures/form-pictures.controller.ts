import { Controller, Get, Inject, Param, ParseUUIDPipe, Res } from '@nestjs/common';
import { ApiExcludeController } from '@nestjs/swagger';
import type { FastifyReply } from 'fastify';
import { Public } from '../../platform/auth/marks';
import { FormPictures } from './form-pictures.service';
import { Open } from '../../platform/commands/command';

/** The pictures of forms at their public addresses. */
@ApiExcludeController()
@Public()
@Controller()
export class FormPicturesController {
  constructor(@Inject(FormPictures) private readonly pictures: FormPictures) {}

  /** It never changes, and forms may stand in any page. */
  @Get('f/pictures/:id')
  @Open('Gives a picture of a form')
  async show(@Param('id', ParseUUIDPipe) id: string, @Res() reply: FastifyReply): Promise<void> {
    const { type, bytes } = await this.pictures.shown(id);
    void reply
      .headers({
        'content-type': type,
        'cache-control': 'public, max-age=31536000, immutable',
        'content-security-policy': "default-src 'none'; sandbox",
        'x-content-type-options': 'nosniff',
        'cross-origin-resource-policy': 'cross-origin',
      })
      .send(bytes);
  }
}
