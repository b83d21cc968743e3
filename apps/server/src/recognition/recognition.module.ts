import { Module } from '@nestjs/common';
import { RecognitionService } from './recognition.service';

/** How a workspace recognises and merges. */
@Module({
  providers: [RecognitionService],
  exports: [RecognitionService],
})
export class RecognitionModule {}
