import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { Gauge } from 'prom-client';
import { Database } from '../platform/database/database';
import { Metrics } from '../platform/metrics';
import { BalanceService } from './balance.service';

const DAY = 86_400_000;
/** Whoever asks more often is told what was found last. */
const KEEP_MS = 60_000;

/** Says as a metric how many submissions of today and yesterday are off balance, in all workspaces. */
@Injectable()
export class BalanceMetric implements OnModuleInit {
  #asked = 0;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Metrics) private readonly metrics: Metrics,
    @Inject(BalanceService) private readonly balances: BalanceService,
  ) {}

  onModuleInit(): void {
    const gauge = new Gauge({
      name: 'haycart_off_balance',
      help: 'Submissions of today and yesterday that were acknowledged and are not kept, or kept and nothing is known of',
      registers: [this.metrics.registry],
      collect: async () => {
        if (Date.now() - this.#asked < KEEP_MS) return;
        this.#asked = Date.now();
        gauge.set(await this.#off());
      },
    });
  }

  async #off(): Promise<number> {
    const day = (time: number) => new Date(time).toISOString().slice(0, 10);
    const [from, to] = [day(Date.now() - DAY), day(Date.now() + DAY)];
    let sum = 0;
    for (const { id } of await this.database.gate<{ id: string }>('workspaces'))
      sum += (await this.database.inWorkspace(id, (tx) => this.balances.of(tx, from, to))).off;
    return sum;
  }
}
