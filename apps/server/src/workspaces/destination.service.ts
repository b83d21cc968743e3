import { Inject, Injectable } from '@nestjs/common';
import type { Destination } from '@haycart/core';
import { eq } from 'drizzle-orm';
import { FieldsService } from '../fields/fields.service';
import { PipelinesService } from '../pipelines/pipelines.service';
import type { WorkspaceTx } from '../platform/database/database';
import { workspace } from './tables';

/** What a workspace has prepared for its records, put together from its pipelines, fields and defaults. */
@Injectable()
export class DestinationService {
  constructor(
    @Inject(FieldsService) private readonly fields: FieldsService,
    @Inject(PipelinesService) private readonly pipelines: PipelinesService,
  ) {}

  async load(tx: WorkspaceTx): Promise<Destination> {
    const [defaults] = await tx.db
      .select({ defaultCountry: workspace.defaultCountry, defaultCurrency: workspace.defaultCurrency })
      .from(workspace)
      .where(eq(workspace.id, tx.workspaceId));
    return { ...defaults!, fields: await this.fields.all(tx), pipelines: await this.pipelines.all(tx) };
  }
}
