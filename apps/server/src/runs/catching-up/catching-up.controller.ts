import { Body, Controller, HttpCode, Inject, Param, Post } from '@nestjs/common';
import { ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { RouteShape } from '@haycart/api';
import { IsBoolean, IsIn, IsISO8601, IsOptional } from 'class-validator';
import { ByCaller, type Caller } from '../../platform/auth/caller';
import { Asks, Command, InTransaction } from '../../platform/commands/command';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { CatchingUpService } from './catching-up.service';

class PeriodDto {
  @IsISO8601() since: string;
  @IsISO8601() before: string;
}

class CatchUpDto extends PeriodDto {
  @ApiPropertyOptional({
    description: 'Whether follow-ups send their messages, mails and posts; not when this is not said.',
  })
  @IsOptional()
  @IsBoolean()
  send?: boolean;
}

class ResumeDto {
  @ApiPropertyOptional({ description: 'What becomes of what arrived meanwhile; it is routed when this is not said.' })
  @IsOptional()
  @IsIn(['route', 'leave-out'])
  waiting?: 'route' | 'leave-out';
}

/** Pausing and resuming a route, and what it has missed. */
@ApiTags('routes')
@Controller('api/v1/routes/:id')
export class CatchingUpController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CatchingUpService) private readonly catchingUp: CatchingUpService,
  ) {}

  /** How much a route has missed in a time: what came before it was there, or while it was paused. */
  @Post('catch-up/count')
  @Asks('routes', 'Counts what a route has missed')
  @HttpCode(200)
  missed(
    @ByCaller() { workspaceId }: Caller,
    @Param('id') id: string,
    @Body() { since, before }: PeriodDto,
  ): Promise<{ missed: number }> {
    return this.database.inWorkspace(workspaceId, async (tx) => ({
      missed: (await this.catchingUp.missed(tx, id, since, before)).length,
    }));
  }

  /** Routes what a route has missed in a time; what other routes did with it stays as it is. */
  @Post('catch-up')
  @Command('routes.catch-up', 'Routes what a route has missed')
  @HttpCode(202)
  async catchUp(
    @InTransaction() tx: WorkspaceTx,
    @Param('id') id: string,
    @Body() { since, before, send }: CatchUpDto,
  ): Promise<{ queued: number }> {
    return {
      queued: await this.catchingUp.catchUp(tx, id, since, before, send),
    };
  }

  @Post('pause')
  @Command('routes.pause', 'Pauses a route')
  @HttpCode(200)
  pause(@InTransaction() tx: WorkspaceTx, @Param('id') id: string): Promise<RouteShape> {
    return this.catchingUp.pause(tx, id);
  }

  @Post('resume')
  @Command('routes.resume', 'Resumes a route')
  @HttpCode(200)
  resume(
    @InTransaction() tx: WorkspaceTx,
    @Param('id') id: string,
    @Body() { waiting }: ResumeDto,
  ): Promise<RouteShape> {
    return this.catchingUp.resume(tx, id, waiting);
  }
}
