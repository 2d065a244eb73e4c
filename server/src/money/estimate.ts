import { allSteps, type ProcedureDocument, type Step, serviceNamed, stepKinds } from '@grivo/core';
import type { ServiceDirectory } from '../services/directory.ts';
import type { Sql } from '../store/database.ts';

/** Entries of the ledger that say what steps cost lately. */
const RECENT = 2_000;
/** English words hold about so many tokens. */
const TOKENS_A_WORD = 1.35;
/** What is sent along with most questions: the fenced passages and the rules. */
const SENT = 2_500;

/** How long a recording is taken to be, until some were heard. */
const MINUTES = 10;

/** Tokens in and out of a step that has not been run here yet, as its words ask for them. */
function tokensOf(step: Step): { in: number; out: number } {
  switch (step.kind) {
    case 'write':
      return { in: SENT * 3, out: step.words * TOKENS_A_WORD };
    case 'translate':
      return { in: 1_500, out: 1_500 };
    case 'notes':
      return { in: SENT, out: 800 };
    default:
      return { in: SENT, out: 300 };
  }
}

/**
 * About what one brief of a procedure will cost, in micros: each paid step as such steps cost lately in this installation,
 * else by the price of its service and what its words ask for. Steps in branches count all, those in turns once.
 */
export async function estimateOf(
  sql: Sql,
  services: ServiceDirectory,
  document: ProcedureDocument,
): Promise<{ micros: number; byPrice: number }> {
  const paid = allSteps(document.steps).filter((step) => !step.off && stepKinds[step.kind].calls !== null);
  const means = new Map(
    (
      await sql.rows<{ kind: string; micros: number }>(
        `SELECT r.kind, SUM(l.micros) / COUNT(DISTINCT l.step_run) AS micros
         FROM (SELECT step_run, micros FROM ledger ORDER BY id DESC LIMIT ${RECENT}) l JOIN step_run r ON r.id = l.step_run GROUP BY r.kind`,
      )
    ).map(({ kind, micros }) => [kind, Number(micros)]),
  );
  let micros = 0;
  let byPrice = 0;
  for (const step of paid) {
    const known = means.get(step.kind);
    if (known !== undefined) {
      micros += known;
      continue;
    }
    byPrice++;
    const named = serviceNamed(step, document);
    const price = ((named && services.get(named)) || services.standard(stepKinds[step.kind].calls!))?.price;
    if (!price) continue;
    if (step.kind === 'illustrate') micros += price.microsPerPicture;
    else if (step.kind === 'hear') micros += (price.microsPerMinute ?? 0) * MINUTES;
    else {
      const tokens = tokensOf(step);
      micros += (tokens.in * price.microsPerThousandIn + tokens.out * price.microsPerThousandOut) / 1_000;
    }
  }
  return { micros: Math.round(micros), byPrice };
}
