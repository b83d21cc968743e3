import { AttributionModule } from '../attribution/attribution.module';
import { OutboxModule } from '../outbox/outbox.module';
import { RunsModule } from '../runs/runs.module';

/** What routes submissions, sends what runs put out, and keeps which touches led to what. */
export const MODULES = [RunsModule, OutboxModule, AttributionModule];
