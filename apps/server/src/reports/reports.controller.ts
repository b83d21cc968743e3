import { Controller, Get, Inject, Query } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { BandFigures, HomeShape, IntakeLine, SearchHit } from '@haycart/api';
import { IsString, Length } from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Database } from '../platform/database/database';
import { SubmissionSearch } from '../submissions/search/submission-search.service';
import { HomeService } from './home.service';
import { IntakeLinesService } from './intake-lines.service';
import { ReportsService } from './reports.service';
import { Reads } from '../platform/commands/command';

class SearchQuery {
  @IsString() @Length(0, 200) q: string;
}

@ApiTags('reports')
@Controller('api/v1')
export class ReportsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(HomeService) private readonly homes: HomeService,
    @Inject(IntakeLinesService) private readonly intakes: IntakeLinesService,
    @Inject(ReportsService) private readonly reports: ReportsService,
    @Inject(SubmissionSearch) private readonly submissions: SubmissionSearch,
  ) {}

  @Get('band')
  @Reads('submissions', 'Counts what the band shows')
  band(@ByCaller() { workspaceId, by }: Caller): Promise<BandFigures> {
    const person = by.kind === 'person' ? by.id : null;
    return this.database.glance(workspaceId, (tx) => this.reports.band(tx, person));
  }

  @Get('home')
  @Reads('submissions', 'Tells what happened in the last 24 hours')
  home(@ByCaller() { workspaceId }: Caller): Promise<HomeShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.homes.home(tx));
  }

  @Get('intake-lines')
  @Reads('intakes', 'Lists intakes with how much came')
  intakeLines(@ByCaller() { workspaceId }: Caller): Promise<IntakeLine[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.intakes.all(tx));
  }

  @Get('search')
  @Reads('records', 'Finds anything by its name')
  async search(@ByCaller() { workspaceId }: Caller, @Query() { q }: SearchQuery): Promise<SearchHit[]> {
    await this.submissions.readUp(workspaceId);
    return this.database.inWorkspace(workspaceId, (tx) => this.reports.search(tx, q));
  }
}
