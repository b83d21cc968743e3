import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Post } from '@nestjs/common';
import { ApiProperty, ApiTags } from '@nestjs/swagger';
import type { FormDomainShape } from '@haycart/api';
import { IsString, Length } from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { NeedsPerson } from '../platform/auth/marks';
import { Database } from '../platform/database/database';
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
  all(@ByCaller() { workspaceId }: Caller): Promise<FormDomainShape[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.domains.all(tx));
  }

  @Post()
  @HttpCode(201)
  add(@ByCaller() { workspaceId }: Caller, @Body() { host }: NewDomainDto): Promise<FormDomainShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.domains.add(tx, host));
  }

  /** Looks into its DNS whether it is the company's. */
  @Post(':host/check')
  @HttpCode(200)
  check(@ByCaller() { workspaceId }: Caller, @Param('host') host: string): Promise<FormDomainShape> {
    return this.domains.check(workspaceId, host);
  }

  /** Links under the domain stop working. */
  @Delete(':host')
  @HttpCode(204)
  remove(@ByCaller() { workspaceId }: Caller, @Param('host') host: string): Promise<void> {
    return this.database.inWorkspace(workspaceId, (tx) => this.domains.remove(tx, host));
  }
}
