import { Inject, Injectable } from '@nestjs/common';
import { asksForField, feedsField, RECORD_KINDS, viewNamesField } from '@haycart/core';
import type { FieldUse } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { FieldsService } from '../fields/fields.service';
import { IntakesService } from '../intakes/intakes.service';
import { FullnessService, type Fullness } from '../records/lists/fullness.service';
import { ViewsService } from '../views/views.service';
import { RoutesService } from '../routes/routes.service';

/** What feeds each field and how full it is, so that a column which silently stays empty is seen. */
@Injectable()
export class FieldUsesService {
  constructor(
    @Inject(FieldsService) private readonly fields: FieldsService,
    @Inject(FullnessService) private readonly fullness: FullnessService,
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(ViewsService) private readonly views: ViewsService,
    @Inject(IntakesService) private readonly intakes: IntakesService,
  ) {}

  async all(tx: WorkspaceTx): Promise<FieldUse[]> {
    const fields = await this.fields.withRetired(tx);
    const routes = await this.routes.definitions(tx);
    const views = await this.views.everybodys(tx);
    const forms = (await this.intakes.all(tx)).filter(({ form }) => form !== null);
    const filled = new Map<string, Fullness>();
    for (const kind of RECORD_KINDS) filled.set(kind, await this.fullness.of(tx, kind));
    return fields.map((field) => {
      const { total, byField } = filled.get(field.record)!;
      const own = byField.get(field.key);
      return {
        ...field,
        records: total,
        filled: own?.count ?? 0,
        lastFilledAt: own?.lastAt ?? null,
        countedAt: filled.get(field.record)!.countedAt?.toISOString() ?? null,
        routes: routes
          .filter(({ draft, published }) => [draft, published].some((route) => route && feedsField(route, field)))
          .map(({ id, name }) => ({ id, name })),
        forms: forms.filter(({ form }) => asksForField(form!, field)).map(({ key, name }) => ({ key, name })),
        views: views
          .filter(({ record, view }) => record === field.record && viewNamesField(view, field.key))
          .map(({ id, name }) => ({ id, name })),
      };
    });
  }
}
