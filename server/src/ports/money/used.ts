import { type Price, type StepKindName, stepKinds } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import type { ServiceDirectory } from '../services/directory.ts';

/** Entries of the ledger that say what steps use lately. */
const RECENT = 4_000;
/** Steps of a kind from which on they say what such steps use. */
export const ENOUGH = 5;

/** What all calls of one step of one brief used. */
export interface Used {
  /** The services it is done by that it called. */
  services: Set<string>;
  tokensIn: number;
  tokensOut: number;
  pictures: number;
  minutes: number;
  /** Paid for calls to services of another role, which stay what they are whoever does the step, in micros. */
  besides: number;
}

interface Row {
  step: string;
  kind: StepKindName;
  service: string;
  what: string;
  calls: number;
  micros: number;
  tokensIn: number;
  tokensOut: number;
}

/** What steps of each kind used in briefs lately. Calls whose outcome nobody learnt say nothing of it. */
export async function usedLately(sql: Sql, services: ServiceDirectory): Promise<Map<string, Used[]>> {
  const rows = await sql.rows<Row>(
    `SELECT CONCAT(r.brief, ' ', r.path) AS step, r.kind, l.service, l.what, COUNT(*) AS calls, SUM(l.micros) AS micros, SUM(l.tokens_in) AS tokensIn, SUM(l.tokens_out) AS tokensOut
     FROM (SELECT step_run, service, what, micros, tokens_in, tokens_out FROM ledger WHERE step_run IS NOT NULL AND what <> 'unknown' ORDER BY id DESC LIMIT ${RECENT}) l
     JOIN step_run r ON r.id = l.step_run
     GROUP BY r.brief, r.path, r.kind, l.service, l.what`,
  );
  const steps = new Map<string, Used>();
  const kinds = new Map<string, Used[]>();
  for (const row of rows) {
    const key = `${row.kind} ${row.step}`;
    let used = steps.get(key);
    if (!used) {
      used = { services: new Set(), tokensIn: 0, tokensOut: 0, pictures: 0, minutes: 0, besides: 0 };
      steps.set(key, used);
      kinds.set(row.kind, [...(kinds.get(row.kind) ?? []), used]);
    }
    const service = services.get(row.service);
    if (service && service.role !== stepKinds[row.kind]?.calls) {
      used.besides += Number(row.micros);
      continue;
    }
    used.services.add(row.service);
    used.tokensIn += Number(row.tokensIn);
    used.tokensOut += Number(row.tokensOut);
    if (row.what === 'picture') used.pictures += Number(row.calls);
    const aMinute = service?.price.microsPerMinute ?? 0;
    if (row.what === 'sound' && aMinute > 0) used.minutes += Number(row.micros) / aMinute;
  }
  return kinds;
}

/** What was used at one service, where that is enough to go by; else at all. */
export function ofService(all: readonly Used[], service: string): readonly Used[] {
  const own = all.filter(({ services }) => services.size === 1 && services.has(service));
  return own.length >= ENOUGH ? own : all;
}

/** The figure so many of all are below, of figures in order. */
const share = (sorted: readonly number[], at: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * at))] ?? 0;

/** What that costs at a price, in micros: the mean, and what nine in ten cost at least and at most. */
export function asUsed(all: readonly Used[], price: Price): { micros: number; fromMicros: number; toMicros: number } {
  const costs = all.map((used) => costOf(used, price)).sort((a, b) => a - b);
  return {
    micros: costs.reduce((a, b) => a + b, 0) / Math.max(1, costs.length),
    fromMicros: share(costs, 0.1),
    toMicros: share(costs, 0.9),
  };
}

const costOf = ({ tokensIn, tokensOut, pictures, minutes, besides }: Used, price: Price): number =>
  besides +
  (tokensIn * price.microsPerThousandIn + tokensOut * price.microsPerThousandOut) / 1_000 +
  pictures * price.microsPerPicture +
  minutes * (price.microsPerMinute ?? 0);
