import {
  articleText,
  type Block,
  blockText,
  inlineText,
  type Part,
  type Person,
  plainInline,
  quotedFrom,
  restingOn,
  textDigest,
} from '@grivo/core';
import type { z } from 'zod';
import { good, type Result } from '../../ports/outcome/outcome.ts';
import { acceptBlocks } from './blocksAccepted.ts';
import type { AskWriter } from './compose.ts';
import type { NumberedPassage } from './promptParts.ts';
import { closingPrompt, questionsPrompt, quotationPrompt, tablePrompt } from './prompts.ts';
import { BlocksShape, QuestionsShape, QuotationShape, TableShape } from './shapes.ts';

/** What the further parts of an article are made of: the article as it stands and what it rests on. */
export interface Further {
  subject: string;
  language: string;
  person: Person;
  house: string;
  instructions: string;
  aim: { phrase: string; terms: string[] } | null;
  parts: readonly Part[];
  passages: readonly NumberedPassage[];
}

const PAIRS = 3;
const CLOSING_WORDS = 45;
const MOST_PASSAGES = 12;

/** Adds the parts that are written once the sections stand: a table, a quotation, questions with answers, a closing. */
export async function withFurther(body: readonly Block[], f: Further, ask: AskWriter): Promise<Result<Block[]>> {
  let out = [...body];
  for (const [part, add] of [
    ['table', table],
    ['quotation', quotation],
    ['questions and answers', questions],
    ['closing', closing],
  ] as const) {
    if (!f.parts.includes(part) || f.passages.length === 0) continue;
    const added = await add(out, f, ask);
    if (!added.ok) return added;
    out = added.value;
  }
  return good(out);
}

const evidenceOf = (numbers: readonly number[], passages: readonly NumberedPassage[], text: string) =>
  [...new Set(numbers)].flatMap((n) => {
    const found = passages.find((one) => one.n === n);
    return found ? [{ passage: found.passage.id, digest: textDigest(text) }] : [];
  });

/** The passages an article rests on first, then the others. */
function given(body: readonly Block[], { passages }: Further): NumberedPassage[] {
  const used = new Set(body.flatMap((block) => block.evidence?.map(({ passage }) => passage) ?? []));
  const isUsed = ({ passage }: NumberedPassage) => used.has(passage.id);
  return [...passages.filter(isUsed), ...passages.filter((one) => !isUsed(one))]
    .slice(0, MOST_PASSAGES)
    .sort((a, b) => a.n - b.n);
}

const MOST_ROWS = 8;
const MOST_COLUMNS = 4;
const FIGURE = /\d+(?:[.,]\d+)*/g;

/** What is wrong with a row of a table: every figure of it must stand in what it rests on. */
function wrongRow(
  { cells, passages: numbers }: z.infer<typeof TableShape>['rows'][number],
  columns: number,
  passages: readonly NumberedPassage[],
): string | null {
  if (cells.length !== columns) return `has ${cells.length} cells where there are ${columns} columns`;
  if (cells[0]!.trim() === '') return 'does not say what it is of';
  if (cells.some((cell) => cell.length > 160)) return 'has a cell of more than 160 letters';
  const said = passages.filter(({ n }) => numbers.includes(n)).map(({ passage }) => passage.text);
  if (said.length === 0) return 'rests on no passage that was given';
  const figures: readonly string[] = said.flatMap((text) => text.match(FIGURE) ?? []);
  const lost = cells.flatMap((cell) => cell.match(FIGURE) ?? []).find((figure) => !figures.includes(figure));
  return lost === undefined ? null : `says ${lost}, which its passages do not`;
}

/** What the passages set side by side, after what rests on them; no table where that is fewer than two things. */
async function table(body: Block[], f: Further, ask: AskWriter): Promise<Result<Block[]>> {
  const passages = given(body, f);
  const asked = await ask({
    instructions: f.instructions,
    material: tablePrompt({
      ...f,
      rows: MOST_ROWS,
      columns: MOST_COLUMNS,
      saidBefore: articleText({ body }),
      passages,
    }),
    name: 'table',
    shape: TableShape,
    accept: (value, last) => {
      const wrong = value.rows.flatMap((row, i) => {
        const fault = wrongRow(row, value.head.length, passages);
        return fault === null ? [] : [`row ${i + 1} ${fault}`];
      });
      return wrong.length === 0 || last ? { ok: true, value } : { ok: false, problem: wrong.slice(0, 5).join('; ') };
    },
    maxTokensOut: 900,
  });
  if (!asked.ok) return asked;
  const { caption, head } = asked.value;
  const rows = asked.value.rows.filter((row) => wrongRow(row, head.length, passages) === null).slice(0, MOST_ROWS);
  if (rows.length < 2 || head.length < 2 || head.length > MOST_COLUMNS) return good(body);
  const cell = (text: string) => plainInline(text.replace(/\s+/g, ' ').trim());
  const block: Block = {
    type: 'table',
    id: 't1',
    ...(caption.trim() === '' ? {} : { caption: cell(caption) }),
    head: head.map(cell),
    rows: rows.map(({ cells }) => cells.map(cell)),
  };
  const numbers = rows.flatMap((row) => row.passages);
  const evidence = evidenceOf(numbers, passages, blockText(block));
  const at = Math.max(
    ...passages.filter(({ n }) => numbers.includes(n)).map(({ passage }) => restingOn(body, passage.id) ?? 0),
  );
  const place = at === 0 ? body.length : at;
  return good([...body.slice(0, place), { ...block, evidence }, ...body.slice(place)]);
}

/** Words of a source as they stand there, with whose they are, after what rests on them. */
async function quotation(body: Block[], f: Further, ask: AskWriter): Promise<Result<Block[]>> {
  const passages = given(body, f);
  const asked = await ask({
    instructions: f.instructions,
    material: quotationPrompt({ subject: f.subject, passages }),
    name: 'quotation',
    shape: QuotationShape,
    accept: (value, last) => {
      const passage = passages.find(({ n }) => n === value.passage);
      if (value.quote.trim() === '' || (passage && quotedFrom(passage.passage.text, value.quote)))
        return { ok: true, value };
      return last
        ? { ok: true, value: { ...value, quote: '' } }
        : {
            ok: false,
            problem: `‘${value.quote.slice(0, 80)}’ does not stand in passage ${value.passage} word for word`,
          };
    },
    maxTokensOut: 300,
  });
  if (!asked.ok) return asked;
  const from = passages.find(({ n }) => n === asked.value.passage)?.passage;
  const words = from ? quotedFrom(from.text, asked.value.quote) : null;
  if (!from || words === null) return good(body);
  const at = restingOn(body, from.id) ?? body.findIndex(({ type }) => type === 'heading') + 1;
  const quote: Block = {
    type: 'quote',
    id: 'q1',
    content: plainInline(words),
    evidence: [{ passage: from.id, quote: words, digest: textDigest(words) }],
    ...(from.locator.title.trim() === ''
      ? {}
      : {
          credit: [
            {
              text: from.locator.title.trim(),
              ...(/^https?:/.test(from.locator.address)
                ? { link: { to: 'address' as const, address: from.locator.address } }
                : {}),
            },
          ],
        }),
  };
  return good([...body.slice(0, at), quote, ...body.slice(at)]);
}

async function questions(body: Block[], f: Further, ask: AskWriter): Promise<Result<Block[]>> {
  const passages = given(body, f);
  const asked = await ask({
    instructions: f.instructions,
    material: questionsPrompt({ ...f, pairs: PAIRS, saidBefore: articleText({ body }), passages }),
    name: 'questions',
    shape: QuestionsShape,
    maxTokensOut: 900,
  });
  if (!asked.ok) return asked;
  const seen = new Set<string>();
  const blocks = asked.value.pairs.slice(0, PAIRS).flatMap(({ question, answer, passages: numbers }, i): Block[] => {
    const [asks, says] = [question.replace(/\s+/g, ' ').trim(), answer.replace(/\s+/g, ' ').trim()];
    const evidence = evidenceOf(numbers, passages, says);
    // An answer that rests on nothing is none.
    if (asks === '' || says === '' || evidence.length === 0 || seen.has(asks.toLowerCase())) return [];
    seen.add(asks.toLowerCase());
    return [{ type: 'question and answer', id: `a${i + 1}`, question: asks, answer: plainInline(says), evidence }];
  });
  return good([...body, ...blocks]);
}

async function closing(body: Block[], f: Further, ask: AskWriter): Promise<Result<Block[]>> {
  const passages = given(body, f);
  const asked = await ask({
    instructions: f.instructions,
    material: closingPrompt({ ...f, words: CLOSING_WORDS, saidBefore: articleText({ body }), passages }),
    name: 'blocks',
    shape: BlocksShape,
    accept: acceptBlocks(new Set(passages.map(({ n }) => n)), f.language),
    maxTokensOut: 400,
  });
  if (!asked.ok) return asked;
  const [first] = asked.value.blocks.filter(({ text }) => text.trim() !== '');
  if (!first) return good(body);
  const content = plainInline(first.text.trim());
  const evidence = evidenceOf(first.passages, passages, inlineText(content));
  return good(evidence.length === 0 ? body : [...body, { type: 'closing', id: 'end', content, evidence }]);
}
