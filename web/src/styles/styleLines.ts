import { FIGURES, type FigureName, type HouseStyleDocument, SAYING_NAMES, sentencesOf } from '@grivo/core';
import { writtenRule } from './replace/ruleLines.ts';
import type { StyleWords } from './useStyle.ts';

const LINES: { [Part in keyof StyleWords]: (value: HouseStyleDocument[Part]) => string[] } = {
  voice: (text) => sentencesOf(text),
  person: (person) => [person ?? 'as each step says'],
  address: (address) => [address],
  spelling: (spelling) => [spelling ?? 'as it comes'],
  ranges: (ranges) =>
    Object.entries(ranges).map(
      ([name, { from, to }]) => `${FIGURES[name as FigureName].says.toLowerCase()} ${from} to ${to}`,
    ),
  facts: (facts) => facts,
  words: (words) => words.map(({ use, not }) => `“${use}”, not ${not.map((one) => `“${one}”`).join(' or ')}`),
  never: (never) => never.map((one) => `“${one}”`),
  standing: (all) =>
    all.flatMap(({ at, section, texts }) =>
      texts.map((text) => `${at === 'after a section' ? `after section ${section}` : at}: ${text}`),
    ),
  rules: (rules) => rules.map(writtenRule),
  call: (call) =>
    call
      ? [
          `${call.before === '' ? '' : `${call.before} `}‘${call.button}’ to ${call.address}, ${call.size}, ${call.side === 'middle' ? 'in the middle' : call.side}`,
        ]
      : [],
  closingLink: (link) =>
    link ? [`${link.before === '' ? '' : `${link.before} `}‘${link.words}’ to ${link.address}`] : [],
  wording: (wording) => SAYING_NAMES.flatMap((name) => wording[name] ?? []),
  disclosure: (text) => (text === '' ? [] : [text]),
  pictures: (text) => (text === '' ? [] : [text]),
  cards: (cards) =>
    cards.map(
      ({ name, width, height, texts }) =>
        `card ‘${name}’, ${width} × ${height}: ${texts.map(({ says }) => says).join(' / ')}`,
    ),
  links: ({ most, aParagraph, inOpening }) => [
    most === null ? 'as many links as the step says' : `at most ${most} in an article`,
    `${aParagraph} in a paragraph`,
    inOpening ? 'the opening like the rest' : 'none in the opening',
  ],
  values: (values) => values.map(({ name, text }) => `${name}: ${text}`),
};

/** A part of a style in lines people read, so that two versions can be told apart line by line. */
export function linesOf<Part extends keyof StyleWords>(name: Part, document: HouseStyleDocument): string[] {
  return LINES[name](document[name]);
}
