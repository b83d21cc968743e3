import { OutboxModule } from '../outbox/outbox.module';
import { RunsModule } from '../runs/runs.module';

/** What routes submissions and sends what runs put out. */
export const MODULES = [RunsModule, OutboxModule];
