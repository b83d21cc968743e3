import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Post } from '@nestjs/common';
import { ApiProperty, ApiTags } from '@nestjs/swagger';
import type { FormDomainShape } from '@haycart/api';
import { IsString, Length } from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { NeedsPerson } from '../platform/auth/marks';
import { Command, InTransaction, Reads, ThisCommand } from '../platform/commands/command';
import type { RunningCommand } from '../platform/commands/running-command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { FormDomains } from './form-domains.service';

class NewDomainDto {
  @ApiProperty({ example: 'forms.example.com' }) @IsString() @Length(1, 500) host: string;
}

/** Domains of the company's own for its forms. */
@ApiTags('forms')
@Controller('api/v1/form-domains')
@NeedsPerson()
export class FormDomainsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(FormDomains) private readonly domains: FormDomains,
  ) {}

  @Get()
  @Reads('forms', 'Lists the domains of one’s own for forms')
  all(@ByCaller() { workspaceId }: Caller): Promise<FormDomainShape[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.domains.all(tx));
  }

  @Post()
  @Command('forms.add-domain', 'Names a domain of one’s own for forms')
  @HttpCode(201)
  add(@InTransaction() tx: WorkspaceTx, @Body() { host }: NewDomainDto): Promise<FormDomainShape> {
    return this.domains.add(tx, host);
  }

  /** Looks into its DNS whether it is the company's. */
  @Post(':host/check')
  @Command('forms.check-domain', 'Looks whether a domain leads here', { takesLong: true })
  @HttpCode(200)
  check(
    @ThisCommand() command: RunningCommand,
    @ByCaller() { workspaceId }: Caller,
    @Param('host') host: string,
  ): Promise<FormDomainShape> {
    return this.domains.check(workspaceId, host, (tx) => command.note(tx));
  }

  /** Links under the domain stop working. */
  @Delete(':host')
  @Command('forms.remove-domain', 'Takes a domain out of use')
  @HttpCode(204)
  remove(@InTransaction() tx: WorkspaceTx, @Param('host') host: string): Promise<void> {
    return this.domains.remove(tx, host);
  }
}
