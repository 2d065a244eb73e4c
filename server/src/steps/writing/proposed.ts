import { type Micros, templateFields, textCost, tokensCeiling, variantProblem } from '@grivo/core';
import { z } from 'zod';
import type { Accepted } from '../../ports/adapters/writerReply.ts';
import { good, type Result } from '../../ports/outcome/outcome.ts';
import type { ServiceRow } from '../../ports/services/entity.ts';
import type { Tools } from '../../ports/tools.ts';
import { fenced } from './fences.ts';
import { proposalPrompt, proposalRules } from './promptsOfTexts.ts';

const LONGEST = 2_000;

const ProposalShape = z.object({ texts: z.array(z.string()).describe('the texts, each another one') });
type Proposal = z.infer<typeof ProposalShape>;

export interface Wanted {
  texts: readonly string[];
  many: number;
}

const ask = ({ texts, many }: Wanted) => ({
  instructions: proposalRules(),
  material: proposalPrompt({ texts, many }),
});

/** About what proposals cost at a writer. */
export function proposalPrice(service: Pick<ServiceRow, 'price'>, wanted: Wanted): Micros {
  const { instructions, material } = ask(wanted);
  const letters = Math.max(...wanted.texts.map((text) => text.length));
  return textCost(service.price, {
    tokensIn: tokensCeiling(instructions + material),
    tokensOut: wanted.many * tokensCeiling('x'.repeat(letters)) + 60,
  });
}

/** The fields a text speaks of, in one line. */
const fieldsIn = (text: string): string => {
  const read = templateFields(text);
  return read.ok ? [...new Set(read.paths)].sort().join(' ') : '?';
};

/** Has a writer propose texts that say the same as some there are; none of them loses a field, or is one there is. */
export async function proposeTexts(
  tools: Pick<Tools, 'writer' | 'secrets' | 'holder'>,
  service: ServiceRow,
  wanted: Wanted,
  asker: { stepRun: string; draw: number; signal: AbortSignal },
): Promise<Result<{ texts: string[]; micros: Micros }>> {
  const reply = await tools.writer.write(
    service,
    {
      ...fenced(tools.secrets, ask(wanted)),
      name: 'proposals',
      shape: ProposalShape,
      accept: acceptProposals(wanted),
      maxTokensOut: 2_000,
    },
    { holder: tools.holder(), ...asker },
  );
  if (!reply.ok) return reply;
  return good({ texts: reply.value.value.texts, micros: reply.value.micros });
}

/** What can be used of proposals; the second time what there is of them. */
export function acceptProposals({ texts, many }: Wanted) {
  const fields = new Set(texts.map(fieldsIn));
  const there = new Set(texts.map((text) => text.toLowerCase()));
  return (value: Proposal, last: boolean): Accepted<Proposal> => {
    const seen = new Set(there);
    const faults: string[] = [];
    const kept = value.texts
      .map((text) => text.replace(/\s+/g, ' ').trim())
      .filter((text, i) => {
        const fault =
          text === '' || text.length > LONGEST
            ? 'is empty or too long'
            : seen.has(text.toLowerCase())
              ? 'is there already'
              : !fields.has(fieldsIn(text))
                ? 'does not keep the words in double braces'
                : variantProblem(text) !== null
                  ? 'has braces that are not closed'
                  : null;
        seen.add(text.toLowerCase());
        if (fault !== null) faults.push(`text ${i + 1} ${fault}`);
        return fault === null;
      })
      .slice(0, many);
    if (kept.length === 0) return { ok: false, problem: faults.slice(0, 5).join('; ') || 'no text was given' };
    return faults.length === 0 || last
      ? { ok: true, value: { texts: kept } }
      : { ok: false, problem: faults.slice(0, 5).join('; ') };
  };
}
