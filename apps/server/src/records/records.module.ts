import { Module } from '@nestjs/common';
import { DestinationModule } from '../destination/destination.module';
import { PipelinesModule } from '../pipelines/pipelines.module';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { ActivitiesService } from './activities/activities.service';
import { ConsentLinks } from './consents/consent-links.service';
import { ConsentsService } from './consents/consents.service';
import { MadeActivities } from './activities/made-activities.service';
import { TasksService } from './activities/tasks.service';
import { AnswersService } from './assignments/answers.service';
import { AssignmentsService } from './assignments/assignments.service';
import { FairnessService } from './assignments/fairness.service';
import { RecordsBin } from './bin/records-bin.service';
import { FieldValuesService } from './edits/field-values.service';
import { LabelledService } from './edits/labelled.service';
import { RecordActs } from './edits/record-acts.service';
import { RecordEditsService } from './edits/record-edits.service';
import { HeldRecords } from './held-records.service';
import { RecordSheetService } from './history/record-sheet.service';
import { TouchSources } from './history/touch-sources';
import { TouchWays } from './history/touch-ways';
import { VisitSources } from './history/visit-sources.service';
import { KnownRecordsStore } from './known-records.store';
import { LeadsService } from './leads/leads.service';
import { FullnessService } from './lists/fullness.service';
import { RecordListsService } from './lists/record-lists.service';
import { CandidateSearch } from './recognised/candidate-search.service';
import { RecordShapes } from './record-shapes';
import { RecordWriter } from './record-writer';
import { RecordsService } from './records.service';
import { DealGridService } from './stages/deal-grid.service';
import { DealMovesService } from './stages/deal-moves.service';

/** Contacts, companies, leads and deals, and what is known of each. */
@Module({
  imports: [DestinationModule, PipelinesModule, WorkspacesModule],
  providers: [
    ActivitiesService,
    MadeActivities,
    TasksService,
    AnswersService,
    AssignmentsService,
    FairnessService,
    CandidateSearch,
    ConsentLinks,
    ConsentsService,
    DealGridService,
    DealMovesService,
    FieldValuesService,
    FullnessService,
    HeldRecords,
    KnownRecordsStore,
    LabelledService,
    LeadsService,
    RecordActs,
    RecordEditsService,
    RecordListsService,
    RecordShapes,
    RecordSheetService,
    RecordWriter,
    TouchSources,
    TouchWays,
    VisitSources,
    RecordsBin,
    RecordsService,
  ],
  exports: [
    ActivitiesService,
    MadeActivities,
    TasksService,
    AnswersService,
    AssignmentsService,
    FairnessService,
    ConsentLinks,
    ConsentsService,
    DealGridService,
    DealMovesService,
    FieldValuesService,
    FullnessService,
    HeldRecords,
    LabelledService,
    LeadsService,
    RecordActs,
    RecordEditsService,
    RecordListsService,
    RecordSheetService,
    RecordsBin,
    RecordsService,
    VisitSources,
  ],
})
export class RecordsModule {}
