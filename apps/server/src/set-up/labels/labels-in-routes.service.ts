import { Inject, Injectable } from '@nestjs/common';
import { sameJson, withLabelMerged, type JsonValue, type RouteDefinition } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import { RoutesService } from '../../routes/routes.service';
import type { LabelKind } from '../../labels/labels.service';

/** The tags and lists that follow-ups of routes name. */
@Injectable()
export class LabelsInRoutes {
  constructor(@Inject(RoutesService) private readonly routes: RoutesService) {}

  /** Has routes name another label in the place of one: their drafts, and with a new version what runs. */
  async merge(tx: WorkspaceTx, kind: LabelKind, from: string, into: string, by: string, note: string): Promise<void> {
    const renamed = (definition: RouteDefinition | null) => {
      const after = definition && withLabelMerged(definition, `${kind}s`, from, into);
      return after && !same(after, definition) ? after : null;
    };
    for (const { id, draft, published } of await this.routes.definitions(tx)) {
      const changed = { draft: renamed(draft), published: renamed(published) };
      if (changed.draft || changed.published) await this.routes.rewrite(tx, id, changed, by, note);
    }
  }
}

function same(one: RouteDefinition, other: RouteDefinition | null): boolean {
  return sameJson(one as unknown as JsonValue, other as unknown as JsonValue);
}
