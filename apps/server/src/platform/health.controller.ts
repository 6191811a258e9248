import { Controller, Inject, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { collectDefaultMetrics, Gauge, Histogram, register } from 'prom-client';
import { Route } from './api';
import { Database } from './database';
import { CONFIG, type Config } from './config';
import { Forbidden, Unavailable } from './errors';
import { HouseKeys } from './house-keys';
import { isOurs } from './ours';
import { faultOf } from './readiness';
import { answers } from '@goodword/core/contract';

// At its default of 10 ms the watch over the event loop alone takes a hundredth of a core.
collectDefaultMetrics({ eventLoopMonitoringPrecision: 500 });

export const requestSeconds = new Histogram({
  name: 'goodword_request_seconds',
  help: 'Time to answer, by route and status',
  labelNames: ['route', 'status'],
});
const waiting = new Gauge({
  name: 'goodword_deliveries',
  help: 'Deliveries not yet out, by state',
  labelNames: ['state'],
});
const jobs = new Gauge({ name: 'goodword_jobs', help: 'Jobs by state', labelNames: ['state'] });

@Controller()
export class HealthController {
  private asked = 0;
  private fault: Promise<string | null> = Promise.resolve(null);

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(HouseKeys) private readonly keys: HouseKeys,
  ) {}

  @Route('get', 'health/live', { role: 'anyone', summary: 'The process runs', answer: answers.health })
  live(): { status: string } {
    return { status: 'live' };
  }

  @Route('get', 'health/ready', {
    role: 'anyone',
    summary: 'The process can do its work',
    answer: answers.health,
  })
  async ready(): Promise<{ status: string }> {
    // It writes to see whether it can: whoever asks all the time has it done once a second.
    if (Date.now() - this.asked > 1000) {
      this.asked = Date.now();
      this.fault = faultOf(this.database, this.keys, this.config);
    }
    const fault = await this.fault;
    if (fault) throw new Unavailable(fault);
    return { status: 'ready' };
  }

  /** Counts over all organizations, with nothing of any person in them. */
  @Route('get', 'metrics', { role: 'anyone', summary: 'Metrics for Prometheus' })
  async metrics(@Req() request: Request, @Res() response: Response): Promise<void> {
    if (!isOurs(request, this.config))
      throw new Forbidden('Metrics are for this machine, or for who has the word (METRICS_TOKEN).');
    const knex = this.database.unscoped();
    const counted = async (table: string, states: string[]) =>
      (await knex(table).whereIn('state', states).groupBy('state').select('state').count('* as n')) as {
        state: string;
        n: number;
      }[];
    waiting.reset();
    jobs.reset();
    for (const row of await counted('delivery', ['ready', 'leased', 'in-flight', 'unsure']))
      waiting.set({ state: row.state }, row.n);
    for (const row of await counted('job', ['waiting', 'running', 'failed']))
      jobs.set({ state: row.state }, row.n);
    response.type(register.contentType).send(await register.metrics());
  }
}
