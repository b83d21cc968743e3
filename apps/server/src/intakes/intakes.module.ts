import { Module } from '@nestjs/common';
import { HostedForms } from './hosted-forms.service';
import { IntakeDirectory } from './intake-directory.service';
import { IntakesService } from './intakes.service';

/** Where submissions arrive. */
@Module({
  providers: [HostedForms, IntakeDirectory, IntakesService],
  exports: [HostedForms, IntakeDirectory, IntakesService],
})
export class IntakesModule {}
