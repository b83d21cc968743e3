import { Injectable } from '@nestjs/common';
import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client';

/** What the server measures of itself, as Prometheus text. Labels never carry anything of a submission. */
@Injectable()
export class Metrics {
  readonly registry = new Registry();
  readonly accepted = new Counter({
    name: 'haycart_submissions_accepted_total',
    help: 'Submissions acknowledged',
    registers: [this.registry],
  });
  readonly refused = new Counter({
    name: 'haycart_submissions_refused_total',
    help: 'Posts refused, by code',
    labelNames: ['code'],
    registers: [this.registry],
  });
  readonly runs = new Counter({
    name: 'haycart_runs_total',
    help: 'Runs ended, by outcome',
    labelNames: ['outcome'],
    registers: [this.registry],
  });
  readonly retries = new Counter({
    name: 'haycart_routing_retries_total',
    help: 'Submissions put back to be tried again',
    registers: [this.registry],
  });
  readonly sent = new Counter({
    name: 'haycart_outgoing_tries_total',
    help: 'Tries to send something to the outside, by kind and what became of it',
    labelNames: ['kind', 'state'],
    registers: [this.registry],
  });
  readonly batch = new Histogram({
    name: 'haycart_routing_batch_seconds',
    help: 'Time to route one batch',
    buckets: [0.005, 0.02, 0.05, 0.1, 0.5, 2],
    registers: [this.registry],
  });
  readonly watching = new Gauge({ name: 'haycart_watching', help: 'Open event streams', registers: [this.registry] });

  constructor() {
    collectDefaultMetrics({ register: this.registry });
  }
}
