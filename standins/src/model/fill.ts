import { answerFigure, answerList, answerText, notes, questions, quotation } from './answers.ts';
import { facts, gist } from './gist.ts';
import { judge } from './judge.ts';
import { type OutlineManner, outline } from './outline.ts';
import { proposals } from './proposals.ts';
import { type ProseManner, prose } from './prose.ts';
import type { ReadRequest } from './request.ts';
import { description, hashtags, keywords, points, titles } from './short.ts';
import { tableCaption, tableHead, tableRows } from './table.ts';
import { translations } from './translate.ts';

/** The part of JSON Schema that replies are described in. */
export interface Schema {
  type?: string;
  description?: string;
  properties?: Record<string, Schema>;
  items?: Schema;
  enum?: unknown[];
  minItems?: number;
}

export interface Style {
  outline: OutlineManner;
  prose: ProseManner;
  points: number;
}

/** A value of the shape asked for, made from the request's material alone: what goes where is read from names and descriptions. */
export function fill(schema: Schema, request: ReadRequest, style: Style, name = ''): unknown {
  if (schema.enum) return schema.enum[0];
  if (isJudgement(schema)) return judge(request);
  if (isQuotation(schema)) return quotation(request);
  switch (schema.type) {
    case 'object':
      return Object.fromEntries(
        Object.entries(schema.properties ?? {}).map(([key, part]) => [key, fill(part, request, style, key)]),
      );
    case 'array':
      return list(schema, request, style, name);
    case 'integer':
    case 'number':
      return asksEditor(request) ? answerFigure(request) : request.passages.length;
    case 'boolean':
      return request.passages.length > 0;
    default:
      return text(schema, request, name);
  }
}

function list(schema: Schema, request: ReadRequest, style: Style, name: string): unknown[] {
  const parts = Object.keys(schema.items?.properties ?? {});
  if (parts.includes('heading')) return outline(request, style.outline);
  if (parts.includes('kind') && parts.includes('text')) return prose(request, style.prose);
  if (parts.includes('question') && parts.includes('answer')) return questions(request);
  if (parts.includes('n') && parts.includes('text')) return translations(request);
  if (parts.includes('cells')) return tableRows(request);
  if (parts.includes('point')) return notes(request);
  if (parts.includes('fact')) return facts(request);
  if (asksEditor(request)) return answerList(request);
  const about = `${name} ${schema.description ?? ''}`.toLowerCase();
  if (/columns hold/.test(about)) return tableHead(request);
  if (/other texts that say the same/.test(request.task)) return proposals(request);
  if (/title/.test(about)) return titles(request);
  if (/hashtag/.test(about)) return hashtags(request);
  if (/keyword|search for|related words/.test(about)) return keywords(request);
  return points(request, Number(/give (\d+)/.exec(request.task)?.[1] ?? style.points));
}

function text(schema: Schema, request: ReadRequest, name: string): string {
  const about = `${name} ${schema.description ?? ''}`.toLowerCase();
  const word = /Answer with the word: (\w+)/.exec(request.task)?.[1];
  if (word) return word;
  if (name === 'caption') return tableCaption(request);
  if (name === 'gist' || /summed up/.test(about)) return gist(request);
  if (name === 'phrase') return keywords(request)[1] ?? request.subject;
  if (asksEditor(request)) return answerText(request, name === 'answer' ? '' : name);
  if (/description|search result/.test(about)) return description(request);
  return request.passages[0]
    ? (request.passages[0].sentences[0]?.text ?? request.subject)
    : 'There is no material on this.';
}

/** Whether the task hands on a question of an editor's own. */
function asksEditor(request: ReadRequest): boolean {
  return /answer what the editor asks/.test(request.task);
}

function isQuotation(schema: Schema): boolean {
  const parts = Object.keys(schema.properties ?? {});
  return parts.includes('quote') && parts.includes('passage');
}

function isJudgement(schema: Schema): boolean {
  const parts = Object.keys(schema.properties ?? {});
  return parts.includes('score') && parts.includes('reason');
}
