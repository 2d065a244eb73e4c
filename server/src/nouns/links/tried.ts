import {
  type ArticleDocument,
  applyRules,
  type Block,
  blockText,
  type Inline,
  inlinesOf,
  type LeftAlone,
  type LinkRule,
  linkUses,
  type RuleSet,
  relinked,
  withTexts,
} from '@grivo/core';

/** A text of an article as rules left it. */
export interface TriedText {
  kind: 'heading' | 'quotation' | 'text';
  parts: { text: string; placed: boolean }[];
  notes: { words: string; says: string; placed: boolean }[];
}

const WHY: Record<LeftAlone['why'], string> = {
  heading: 'in a heading, left alone',
  quotation: 'in a quotation, left alone',
  link: 'linked already, left alone',
  most: 'often enough, left alone',
  'too early': 'too early, left alone',
};

/** What rules make of an article, to be looked at: it is not changed. */
export function tried(given: ArticleDocument, set: RuleSet) {
  const document = withoutThem(given, set);
  const { article, placed, alone } = applyRules(document, set);
  const rules = new Map(set.rules.map((rule) => [rule.id, rule]));
  const times = new Map<string, number>();
  const texts = article.body.flatMap((block, i): TriedText[] => {
    const was = document.body[i]!;
    const kind = block.type === 'heading' ? 'heading' : block.type === 'quote' ? 'quotation' : 'text';
    const parts = partsOf(block, was);
    if (parts.length === 0) return [];
    const notes = [
      ...placed
        .filter((one) => one.block === block.id)
        .map((one) => {
          const n = (times.get(one.rule) ?? 0) + 1;
          times.set(one.rule, n);
          return { words: one.words, says: saysOf(rules.get(one.rule)!, n), placed: true };
        }),
      ...alone
        .filter((one) => one.block === block.id)
        .map(({ words, why }) => ({ words, says: WHY[why], placed: false })),
    ];
    return [{ kind, parts, notes }];
  });
  return { texts, placed: placed.length, alone: alone.length };
}

/** The article as it would be before any rule linked anything in it. */
function withoutThem(document: ArticleDocument, set: RuleSet): ArticleDocument {
  const addresses = new Set(set.rules.map(({ address }) => address));
  const led = linkUses(document).flatMap(({ target }) => (target.to === 'address' ? [target.address] : []));
  return [...new Set(led)]
    .filter((address) => addresses.has(address))
    .reduce((now, address) => relinked(now, address, null), document);
}

const saysOf = ({ most, sponsored }: LinkRule, n: number): string => `${n} of ${most}${sponsored ? ', sponsored' : ''}`;

function partsOf(block: Block, was: Block): TriedText['parts'] {
  const out: TriedText['parts'] = [];
  const before = new Set(inlinesOf(was).flatMap(({ text, link }) => (link ? [text] : [])));
  // Items of a list and cells of a table stand apart.
  const take = (content: readonly Inline[]): Inline[] => {
    if (out.length > 0) out.push({ text: ' ', placed: false });
    out.push(...content.map(({ text, link }) => ({ text, placed: link !== undefined && !before.has(text) })));
    return [...content];
  };
  withTexts(block, { rich: take });
  if (out.length > 0) return out;
  const text = blockText(block);
  return text === '' ? [] : [{ text, placed: false }];
}
