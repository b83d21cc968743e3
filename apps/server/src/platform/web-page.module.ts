import { Module } from '@nestjs/common';
import { WebPageController } from './web-page.controller';

/** The application’s page, at every address that nothing else answers. */
@Module({ controllers: [WebPageController] })
export class WebPageModule {}
