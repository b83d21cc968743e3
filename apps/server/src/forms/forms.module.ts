import { Module } from '@nestjs/common';
import { DestinationModule } from '../destination/destination.module';
import { IntakesModule } from '../intakes/intakes.module';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { EntryLinks } from './entry-links.service';
import { FormAnswers } from './form-answers.service';
import { FormCounts } from './form-counts.service';
import { FormHosts } from './form-hosts.service';
import { FormPages } from './form-pages.service';
import { FormsController } from './forms.controller';
import { FormPicturesController } from './pictures/form-pictures.controller';
import { FormPictures } from './pictures/form-pictures.service';
import { PublicForms } from './public-forms.service';
import { ThemesService } from './themes.service';

/** Forms as visitors see and answer them. */
@Module({
  imports: [DestinationModule, IntakesModule, WorkspacesModule],
  controllers: [FormPicturesController, FormsController],
  providers: [EntryLinks, FormAnswers, FormCounts, FormHosts, FormPages, FormPictures, PublicForms, ThemesService],
  exports: [EntryLinks, FormAnswers, FormCounts, FormHosts, FormPages, FormPictures, ThemesService],
})
export class FormsModule {}
