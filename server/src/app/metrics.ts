/** What a monitor asks for: requests and their times, errors, what waits. In the text format that Prometheus reads. */
import type { RequestHandler } from 'express';
import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client';
import type { Database } from '../db/index.ts';

const BUCKETS_S = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10];

export interface Metrics {
  /** counts every request, by method, route and answer */
  readonly count: RequestHandler;
  /** answers with all of it */
  readonly tell: RequestHandler;
}

export function metricsOf(database: Database): Metrics {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry, prefix: 'jutbank_' });
  const registers = [registry];
  const seconds = new Histogram({
    name: 'jutbank_request_seconds',
    help: 'Time from request to answer',
    labelNames: ['method', 'route', 'status'],
    buckets: BUCKETS_S,
    registers,
  });
  const faults = new Counter({
    name: 'jutbank_faults_total',
    help: 'Answers of 500 and above',
    labelNames: ['status'],
    registers,
  });
  const counted = (name: string, help: string, sql: string) =>
    new Gauge({
      name,
      help,
      registers,
      async collect() {
        const row = await database.row<{ n: number }>(sql).catch(() => undefined);
        this.set(Number(row?.n ?? NaN));
      },
    });
  counted('jutbank_database_up', '1 where the database answers', 'SELECT 1 AS n');
  counted('jutbank_pieces', 'Pieces in the books', 'SELECT COUNT(*) AS n FROM piece');
  counted(
    'jutbank_tasks_waiting',
    'Tasks that wait or run',
    "SELECT COUNT(*) AS n FROM job WHERE state IN ('queued', 'running')",
  );
  counted(
    'jutbank_errands_waiting',
    'What services outside have not been told yet',
    "SELECT COUNT(*) AS n FROM outbox WHERE state = 'waiting'",
  );
  return {
    count: (request, response, next) => {
      const end = seconds.startTimer();
      response.on('finish', () => {
        // the pattern of the route, never an address: a label for each piece would be without end
        const route =
          typeof request.route === 'object' ? String((request.route as { path: unknown }).path) : 'none';
        const status = String(response.statusCode);
        end({ method: request.method, route, status });
        if (response.statusCode >= 500) faults.inc({ status });
      });
      next();
    },
    tell: (_request, response, next) => {
      registry.metrics().then((text) => response.type(registry.contentType).send(text), next);
    },
  };
}
