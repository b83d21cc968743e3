import { Module } from '@nestjs/common';
import { FormsModule } from '../forms/forms.module';
import { IntakesModule } from '../intakes/intakes.module';
import { SubmissionsModule } from '../submissions/submissions.module';
import { AcceptHandler } from './accept.handler';

/** Takes what is posted to intakes and forms. */
@Module({
  imports: [FormsModule, IntakesModule, SubmissionsModule],
  providers: [AcceptHandler],
})
export class AcceptModule {}
