// What can be counted of written articles against what they were written from. Each count says how it is made; none uses
// anything of how the stand-in writes.
import {
  contentStems,
  doubtsOf,
  fold,
  isStatement,
  readSources,
  sentencesOf,
  supportOf,
  wordsOfText,
} from '@grivo/core';

const RUN = 5;
/** Words from which on a sentence says enough to be told from others. */
const LEAST = 4;

const bare = (text, language) => wordsOfText(fold(text), language).join(' ');
const inline = (content) => content.map(({ text }) => text).join('');

/** Texts of a block, an item of a list by itself. */
function textsOf(block) {
  if (block.content) return [inline(block.content)];
  if (block.items) return block.items.map((item) => (Array.isArray(item) ? inline(item) : String(item)));
  return [];
}

/** Sentences of the blocks that state something; items of lists need be none. */
function sentencesIn({ body, language }, of = isStatement) {
  return body.filter(of).flatMap((block) => textsOf(block).flatMap((text) => sentencesOf(text, language)));
}

function* runsOf(text) {
  const words = text.split(' ');
  for (let at = 0; at + RUN <= words.length; at++) yield words.slice(at, at + RUN).join(' ');
}

/** Headings that do not fit, with how their sections begin: one does not when its section has none of its words, or another section has twice as many of them. */
function unfitHeadings({ body, language }) {
  const sections = [];
  for (const block of body) {
    if (block.type === 'heading' && block.level === 2) sections.push({ heading: block.text, text: '' });
    else if (sections.length > 0) sections.at(-1).text += ` ${textsOf(block).join(' ')}`;
  }
  const stems = sections.map(({ text }) => contentStems(text, language));
  const times = (of, words) => words.filter((word) => of.includes(word)).length / Math.max(1, words.length);
  return sections.flatMap(({ heading, text }, i) => {
    const named = `${heading}: ${text.trim().slice(0, 80)}…`;
    const own = [...new Set(contentStems(heading, language))];
    if (own.length === 0) return [];
    if (!own.some((word) => stems[i].includes(word))) return [named];
    const here = times(own, stems[i]);
    return stems.some((other, j) => j !== i && other.length > 20 && times(own, other) > 2 * here) ? [named] : [];
  });
}

const ENDS = /[.!?…:][)”“"»’]*$/;
const HANGS = {
  en: /\b(?:and|or|but|the|a|an|of|to|with|for)[.!?]$/i,
  de: /\b(?:und|oder|aber|der|die|das|ein|eine|mit|für)[.!?]$/i,
};

/** Broken: no end, begins small, hangs, a word twice in a row, or a bracket or quotation mark without its other. */
function isBroken(sentence, language) {
  const count = (letters) => [...sentence].filter((letter) => letters.includes(letter)).length;
  return (
    !ENDS.test(sentence) ||
    /^\p{Ll}/u.test(sentence) ||
    (HANGS[language] ?? HANGS.en).test(sentence) ||
    /\b(\p{L}+) \1\b(?! \1)/iu.test(sentence.replace(/\b(?:that that|had had|die die|der der|das das)\b/gi, '')) ||
    count('(') !== count(')') ||
    count('“„') !== count('”') + (count('„') > 0 ? count('“') : 0)
  );
}

const share = (part, whole) => (whole === 0 ? 0 : part / whole);

/**
 * @param {{ document: object, passages: { id: string, text: string }[], subject: string, brief?: string }[]} articles those of
 *   one brief are one article in several versions: a draft under another title shares nothing with another article
 */
export function measured(articles) {
  const of = articles.map(({ document, passages, subject, brief }, at) => {
    const { language } = document;
    const sentences = sentencesIn(document);
    const stated = sentencesIn(document, ({ type }) => type === 'paragraph' || type === 'quote');
    const known = sentences
      .map((sentence) => bare(sentence, language))
      .filter((text) => text.split(' ').length >= LEAST);
    return {
      document,
      passages,
      subject,
      brief: brief ?? String(at),
      language,
      sentences,
      stated,
      known,
      sources: passages.map(({ text }) => bare(text, language)),
    };
  });
  const inArticles = new Map();
  for (const { known, brief } of of)
    for (const text of known) (inArticles.get(text) ?? inArticles.set(text, new Set()).get(text)).add(brief);
  let copied = 0;
  let shared = 0;
  let all = 0;
  let runs = 0;
  let copiedRuns = 0;
  let broken = 0;
  let openings = 0;
  let sentences = 0;
  let blocks = 0;
  let unsupported = 0;
  let doubted = 0;
  const examples = { broken: [], unfit: [], doubted: [] };
  for (const one of of) {
    examples.unfit.push(...unfitHeadings(one.document));
    all += one.known.length;
    copied += one.known.filter((text) => one.sources.some((source) => ` ${source} `.includes(` ${text} `))).length;
    shared += one.known.filter((text) => inArticles.get(text).size > 1).length;
    const held = new Set(one.sources.flatMap((source) => [...runsOf(source)]));
    for (const text of one.known)
      for (const run of runsOf(text)) {
        runs++;
        if (held.has(run)) copiedRuns++;
      }
    const wrong = one.stated.filter((sentence) => isBroken(sentence, one.language));
    broken += wrong.length;
    examples.broken.push(...wrong);
    sentences += one.sentences.length;
    const begun = new Map();
    for (const text of one.known) {
      const begins = text.split(' ').slice(0, 3).join(' ');
      begun.set(begins, (begun.get(begins) ?? 0) + 1);
    }
    openings += [...begun.values()].filter((times) => times > 1).reduce((sum, times) => sum + times - 1, 0);
    const byId = new Map(one.passages.map((passage) => [passage.id, passage.text]));
    for (const block of one.document.body.filter(({ type }) => type === 'paragraph' || type === 'list')) {
      const own = (block.evidence ?? []).flatMap(({ passage }) => byId.get(passage) ?? []);
      blocks++;
      const [said, sources] = [textsOf(block).join(' '), readSources(own, one.language)];
      if (supportOf(said, sources, one.language).support === 'nothing') unsupported++;
      // What is said rests on what the stand-in was given, in other words: what is marked in it is marked for nothing.
      const doubts = own.length === 0 ? [] : doubtsOf(said, sources, one.language);
      if (doubts.length === 0) continue;
      doubted++;
      examples.doubted.push(
        `${doubts.map(({ kind, words }) => `${kind} ‘${words}’`).join(', ')} in ‘${said}’ of ‘${own.join(' | ')}’`,
      );
    }
  }
  // Two alternatives are the same when nothing but the words of their subjects tells them apart.
  const seen = new Set();
  const alternatives = of.flatMap(({ document, subject, language, brief }) => {
    const own = new Set(contentStems(`${subject} ${document.title}`, language));
    return (
      document.body
        // A picture that two versions of an article show is one.
        .filter(({ type, file }) => type === 'figure' && !seen.has(`${brief} ${file}`) && seen.add(`${brief} ${file}`))
        .map(({ alternative }) =>
          wordsOfText(fold(alternative), language)
            .filter((word) => !contentStems(word, language).some((stem) => own.has(stem)))
            .join(' '),
        )
    );
  });
  const times = new Map();
  for (const rest of alternatives) times.set(rest, (times.get(rest) ?? 0) + 1);
  const isCopied = ({ document, sources, known, language }) => {
    const text = bare(document.description, language);
    return text !== '' && [...sources, known.join(' ')].some((one) => ` ${one} `.includes(` ${text} `));
  };
  return {
    figures: {
      articles: articles.length,
      sentencesFromSources: share(copied, all),
      sentencesShared: share(shared, all),
      runsFromSources: share(copiedRuns, runs),
      unfitHeadings: examples.unfit.length,
      bareTitles: of.filter(({ document, subject }) => bare(document.title) === bare(subject)).length,
      copiedDescriptions: of.filter(isCopied).length,
      sameAlternatives: alternatives.filter((rest) => times.get(rest) > 1).length,
      brokenSentences: broken,
      unsupported: share(unsupported, blocks),
      doubted: share(doubted, blocks),
      repeatedOpenings: share(openings, sentences),
    },
    examples,
  };
}
