/** What Galtry has done since it started, in the Prometheus text format, for whom its operator allows. */
import { Counter, collectDefaultMetrics, Gauge, Histogram, Registry } from "prom-client";

interface Metrics {
  registry: Registry;
  acts: Counter<"act" | "outcome">;
  seconds: Histogram<"type">;
  unexpected: Counter<"act">;
  gauges: Map<string, () => number>;
}

/** One for the process, however many bundles the framework makes of this module. */
const holder = globalThis as typeof globalThis & { __galtryMetrics?: Metrics };

function metrics(): Metrics {
  if (holder.__galtryMetrics) return holder.__galtryMetrics;
  const registry = new Registry();
  collectDefaultMetrics({ register: registry, prefix: "galtry_" });
  const made: Metrics = {
    registry,
    acts: new Counter({
      name: "galtry_acts_total",
      help: "Commands and queries by name and outcome.",
      labelNames: ["act", "outcome"],
      registers: [registry],
    }),
    seconds: new Histogram({
      name: "galtry_act_seconds",
      help: "How long commands and queries took.",
      labelNames: ["type"],
      buckets: [0.002, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10],
      registers: [registry],
    }),
    unexpected: new Counter({
      name: "galtry_unexpected_total",
      help: "Failures that nobody expected, by what was being done.",
      labelNames: ["act"],
      registers: [registry],
    }),
    gauges: new Map(),
  };
  holder.__galtryMetrics = made;
  return made;
}

export const countUnexpected = (act: string): void => metrics().unexpected.inc({ act });

/** @param began by `performance.now()` */
export function countAct(
  type: "command" | "query",
  act: string,
  outcome: "done" | "refused" | "failed",
  began: number,
) {
  metrics().acts.inc({ act, outcome });
  metrics().seconds.observe({ type }, (performance.now() - began) / 1000);
}

/** A number that is asked for when somebody reads. */
export function gauge(name: string, help: string, read: () => number): void {
  const { gauges, registry } = metrics();
  if (!gauges.has(name))
    new Gauge({
      name: `galtry_${name}`,
      help,
      registers: [registry],
      collect() {
        this.set(gauges.get(name)!());
      },
    });
  gauges.set(name, read);
}

export async function metricsText(): Promise<{ type: string; text: string }> {
  const { registry } = metrics();
  return { type: registry.contentType, text: await registry.metrics() };
}
