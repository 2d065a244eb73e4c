import { expect, test } from 'vitest';
import { lines } from '../testing/corpus.ts';
import { sentenceOf } from './document.ts';
import type { CheckContext } from './kind.ts';
import { type Step, type StepKindName, stepKinds } from './registry.ts';
import { type Names, type SentenceWord, sentenceText, type WordEditor } from './sentence.ts';
import { SHIPPED } from './shipped.ts';
import { toldProcedure } from './told.ts';

const few: Names = { blog: (id) => `Blog ${id}`, source: (id) => `List ${id}` };
const many: Names = {
  ...few,
  blogLacks: () => ({ categories: 'it has no categories' }),
  routine: (id) => `Routine ${id}`,
  destination: (id) => `Destination ${id}`,
  service: (id) => `Service ${id}`,
  style: (id) => `Style ${id}`,
  hasStyles: true,
  cards: ['wide', 'square'],
  choosable: () => true,
};

const KNOWN: CheckContext = { names: few, hasBlog: () => true, hasSource: () => true };
const UNKNOWN: CheckContext = {
  names: many,
  hasBlog: () => false,
  hasService: () => false,
  hasSource: () => false,
  hasStyle: () => false,
  hasDestination: () => false,
  brings: () => [],
  routine: () => null,
};

/** What may be put in the place of a word, by how it is edited. */
function valuesFor(editor: WordEditor, now: unknown): unknown[] {
  if (editor.type === 'choice') return editor.options.map(({ value }) => value);
  if (editor.type === 'number' || editor.type === 'minutes')
    return [editor.least, editor.least + 1, 60, 90, 1_440, editor.most].filter(
      (n) => n >= editor.least && n <= editor.most,
    );
  if (editor.type === 'range')
    return [
      { from: editor.least, to: editor.most },
      { from: editor.least + 1, to: editor.least + 1 },
    ];
  if (editor.type === 'values') return [[], ['salt'], ['salt', 'brine', 'jar', 'lid', 'crock', 'kraut']];
  if (typeof now === 'boolean') return [!now];
  if (typeof now === 'string')
    return ['', 'salt', 'a text that is longer than the sixty letters of which a sentence shows the beginning only'];
  return [null];
}

const wordsOf = (step: Step, names: Names) =>
  sentenceOf(step, names).filter((part): part is SentenceWord => 'word' in part);
const said = (step: Step, names: Names): string => {
  const offered = wordsOf(step, names).flatMap(({ add, word }) => (add ? [word] : []));
  return `${sentenceText(sentenceOf(step, names))}${offered.length > 0 ? ` [${offered.join(', ')}]` : ''}`;
};

test.each(Object.keys(stepKinds) as StepKindName[])('every sentence of ‘%s’', async (name) => {
  const kind = stepKinds[name] as unknown as {
    schema: { safeParse: (step: unknown) => { success: boolean } };
    keeps?: (step: Step) => string;
    uses?: (step: Step) => { field: string; as: string; text: string }[];
    check: (step: Step, context: CheckContext) => { field?: string; grade: string; sentence: string; mend: string }[];
  };
  const fresh = stepKinds[name].fresh('s1') as unknown as Step;
  const all = new Set<string>();
  const found = [few, many].flatMap((names) => {
    const steps: { how: string; step: Step }[] = [{ how: 'fresh', step: fresh }];
    // Each word by itself, and then once more with each that was put in its place.
    for (let depth = 0, at = 0; depth < 2; depth++) {
      const until = steps.length;
      for (; at < until; at++) {
        const { how, step } = steps[at]!;
        for (const { field, editor } of wordsOf(step, names))
          for (const value of valuesFor(editor, (step as unknown as Record<string, unknown>)[field])) {
            const next = { ...step, [field]: value } as unknown as Step;
            const key = JSON.stringify([next, names === few]);
            if (all.has(key) || !kind.schema.safeParse(next).success) continue;
            all.add(key);
            const told = JSON.stringify(value) ?? 'nothing';
            steps.push({ how: `${how === 'fresh' ? '' : `${how}, `}${field} ${told.slice(0, 30)}`, step: next });
          }
        if (steps.length > 30) break;
      }
    }
    const context = names === few ? KNOWN : UNKNOWN;
    return steps.flatMap(({ how, step }) => {
      const uses = (kind.uses?.(step) ?? []).map(({ field, as, text }) => `${field} ${as} ‘${text.slice(0, 20)}’`);
      const problems = kind
        .check(step, context)
        .map((one) => `    ${one.grade} ${one.field ?? ''}: ${one.sentence} ${one.mend}`);
      const keeps = kind.keeps ? `; keeps ${kind.keeps(step)}` : '';
      return [`${how}: ${said(step, names)}${keeps}${uses.length > 0 ? `; uses ${uses.join(', ')}` : ''}`, ...problems];
    });
  });
  await expect(lines(found)).toMatchFileSnapshot(`listed/${name}.txt`);
});

test.each(SHIPPED.map(({ key }) => key))('the shipped procedure ‘%s’ as it is made', async (key) => {
  const { make, ...about } = SHIPPED.find((one) => one.key === key)!;
  const all = (['en', 'de'] as const).flatMap((language) => {
    const made = make({ source: 's'.repeat(20), blog: 'b'.repeat(20), language, columns: ['name', 'price', 'text'] });
    return [
      `= ${language} ${JSON.stringify({ ...made, steps: made.steps.length })}`,
      ...made.steps.map((step) => JSON.stringify(step)),
      ...toldProcedure(made, many).map((line) => JSON.stringify(line)),
    ];
  });
  await expect(lines([JSON.stringify(about), ...all])).toMatchFileSnapshot(
    `listed/shipped/${key.replaceAll(' ', '-')}.txt`,
  );
});
