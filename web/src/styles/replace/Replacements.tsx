import { type HouseStyleWhole, ReplacementsTried } from '@grivo/contract';
import { type ReplacementRule, RULED } from '@grivo/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../../api/call.ts';
import { read } from '../../api/queries.ts';
import { Button, ChoiceWord, Empty, Head, LinesOnce, Loading, TextWord, Trouble, Word } from '../../design/index.ts';
import { ArticleChoice } from '../../parts/ArticleChoice.tsx';
import { plural } from '../../words/figures.ts';
import type { StyleEdit } from '../useStyle.ts';
import { readRules, writtenRule } from './ruleLines.ts';

const MOST_SHOWN = 100;

/** What is replaced in every article of the house, in its order, beside an article it is tried on. */
export function Replacements({ style, edit }: { style: HouseStyleWhole; edit: StyleEdit }) {
  const { rules } = edit.words;
  const change = (at: number, next: readonly ReplacementRule[]) =>
    edit.put(({ rules: now }) => ({ rules: [...now.slice(0, at), ...next, ...now.slice(at + 1)] }));
  const up = (at: number) =>
    edit.put(({ rules: now }) => ({
      rules: [...now.slice(0, at - 1), now[at]!, now[at - 1]!, ...now.slice(at + 1)],
    }));
  const tried = useTried(rules);
  const problems = new Map(tried.result.data?.problems.map(({ rule, problem }) => [rule, problem]));
  return (
    <div className="-mx-8 grid flex-1 grid-cols-2 border-t border-ink max-[1100px]:grid-cols-1">
      <section className="px-8 pb-8">
        <Head title="Replaced" right={rules.length === 0 ? '' : plural(rules.length, 'rule')} />
        {rules.length === 0 ? (
          <Empty>
            Nothing is replaced yet. A rule puts other words, or none, wherever the words it names stand in an article.
          </Empty>
        ) : null}
        <ol>
          {rules.slice(0, MOST_SHOWN).map((rule, i) => (
            <li key={`${i} ${writtenRule(rule)}`} className="row border-b border-rule-soft py-1.5">
              <RuleSentence rule={rule} onPut={(next) => change(i, [next])} />
              <span className="flex flex-wrap items-baseline gap-4 text-small">
                {problems.has(i) ? <span className="text-red">{problems.get(i)}</span> : null}
                <span className="ml-auto flex gap-4">
                  {i > 0 ? (
                    <Button look="quiet" onClick={() => up(i)} aria-label={`Move up: ${rule.find}`}>
                      Move up
                    </Button>
                  ) : null}
                  <Button look="quiet" onClick={() => change(i, [rule, rule])} aria-label={`Copy it: ${rule.find}`}>
                    Copy it
                  </Button>
                  <Button look="quiet" onClick={() => change(i, [])} aria-label={`Take it out: ${rule.find}`}>
                    Take it out
                  </Button>
                </span>
              </span>
            </li>
          ))}
        </ol>
        <p className="flex flex-wrap items-baseline gap-x-5 pt-2 text-proc leading-7">
          {rules.length > MOST_SHOWN ? `and ${rules.length - MOST_SHOWN} more. ` : ''}
          <RuleLines
            label="A new rule"
            rules={[]}
            hint="As “utilise => use”. A pattern stands between strokes: /colou?rs?/ => paint. Nothing after => leaves the words out."
            onPut={(made) => edit.put(({ rules: now }) => ({ rules: [...now, ...made] }))}
          >
            Add a rule
          </RuleLines>
          {rules.length === 0 ? null : (
            <RuleLines
              label="All rules"
              rules={rules}
              hint="Their order counts. What else holds stands in square brackets: same case, not in headings, not in links, in quotations."
              onPut={(next) => edit.put({ rules: [...next] })}
            >
              Change them all as a list
            </RuleLines>
          )}
        </p>
        <p className="max-w-prose pt-3 text-small text-ink-3">
          Rules are used from the top on the text as the writer gave it. Where two want the same words, the upper one
          has them. Code, your own markup and whose a quotation is are never touched. What was replaced in a text can be
          put back on the article’s page.
        </p>
      </section>
      <section className="border-l border-rule bg-sheet px-6 pb-8 max-[1100px]:border-l-0 max-[1100px]:px-8">
        <Tried style={style} tried={tried} any={rules.length > 0} />
      </section>
    </div>
  );
}

const WHERE: Record<(typeof RULED)[number], { yes: string; no: string; does: string }> = {
  headings: { yes: 'headings', no: 'no headings', does: 'the title and the headings of sections' },
  links: { yes: 'the words of links', no: 'no words of links', does: 'where a link leads never changes' },
  quotations: { yes: 'quotations', no: 'no quotations', does: 'what somebody said would no longer be as it was said' },
};

function RuleSentence({ rule, onPut }: { rule: ReplacementRule; onPut: (rule: ReplacementRule) => void }) {
  return (
    <p className="text-proc leading-7 break-words">
      {rule.say === '' ? 'Leave out ' : 'Replace '}
      <ChoiceWord
        label="How it is found"
        value={rule.pattern ? 'pattern' : 'words'}
        options={[
          { value: 'words', says: 'the words', does: 'whole words, as they stand' },
          { value: 'pattern', says: 'the pattern', does: 'a regular expression, as colou?rs?' },
        ]}
        onChoose={(how) => onPut({ ...rule, pattern: how === 'pattern' })}
      />{' '}
      <TextWord
        label="What is found"
        value={rule.find}
        hint={
          rule.pattern
            ? 'A regular expression without lookahead, lookbehind or back-references.'
            : 'Words as they stand.'
        }
        onPut={(find) => {
          if (find !== '') onPut({ ...rule, find });
        }}
      >
        {rule.find}
      </TextWord>
      {rule.say === '' ? ', saying ' : ' by '}
      <TextWord
        label="What is said instead"
        value={rule.say}
        hint={
          rule.pattern ? 'Parts of the pattern in round brackets as $1. Empty leaves it out.' : 'Empty leaves it out.'
        }
        onPut={(say) => onPut({ ...rule, say })}
      >
        {rule.say === '' ? 'nothing' : rule.say}
      </TextWord>
      , in{' '}
      <ChoiceWord
        label="Capitals"
        value={rule.cased ? 'same' : 'any'}
        options={[
          { value: 'any', says: 'any case', does: 'a capital stays a capital' },
          { value: 'same', says: 'this case only', does: 'capitals and small letters as they are typed' },
        ]}
        onChoose={(how) => onPut({ ...rule, cased: how === 'same' })}
      />
      ; in the text
      <RulePlaces rule={rule} onPut={onPut} />.
    </p>
  );
}

function RulePlaces({ rule, onPut }: { rule: ReplacementRule; onPut: (rule: ReplacementRule) => void }) {
  return (
    <>
      {RULED.map((place) => (
        <span key={place}>
          ,{' '}
          <ChoiceWord
            label={`Rule in ${place}`}
            value={rule.where.includes(place) ? 'yes' : 'no'}
            options={[
              { value: 'yes', says: WHERE[place].yes, does: WHERE[place].does },
              { value: 'no', says: WHERE[place].no, does: 'they stay as they are' },
            ]}
            onChoose={(is) =>
              onPut({
                ...rule,
                where: RULED.filter((one) => (one === place ? is === 'yes' : rule.where.includes(one))),
              })
            }
          />
        </span>
      ))}
    </>
  );
}

/** Rules as lines: some to be added, or all of them. */
function RuleLines({
  label,
  rules,
  hint,
  onPut,
  children,
}: {
  label: string;
  /** What stands there to be changed. */
  rules: readonly ReplacementRule[];
  hint: string;
  onPut: (rules: readonly ReplacementRule[]) => void;
  children: string;
}) {
  return (
    <Word
      label={label}
      editor={(close) => (
        <LinesOnce
          label={label}
          rows={rules.length === 0 ? 2 : 12}
          value={rules.map(writtenRule).join('\n')}
          hint={hint}
          problemOf={(text) => {
            const lines = readRules(text);
            return lines.ok ? null : lines.problem;
          }}
          onPut={(text) => {
            const lines = readRules(text);
            if (lines.ok) onPut(lines.rules);
          }}
          close={close}
        />
      )}
    >
      {children}
    </Word>
  );
}

type Sample = { article: string } | { text: string };

/** The rules as they are now on an article or a text, newest first where nothing was chosen. */
function useTried(rules: readonly ReplacementRule[]) {
  const newest = useQuery(read.someArticles('', 1)).data?.articles[0]?.id ?? null;
  const [chosen, setChosen] = useState<Sample | null>(null);
  const sample = chosen ?? (newest === null ? null : { article: newest });
  const result = useQuery({
    queryKey: ['replacements tried', rules, sample],
    queryFn: () =>
      call('POST', '/styles/replacements/tried', {
        body: { rules, ...(sample ?? { text: '' }) },
        answer: ReplacementsTried,
      }),
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });
  return { sample, setChosen, result };
}

/** What the rules change in a text, place by place. */
function Tried({ style, tried, any }: { style: HouseStyleWhole; tried: ReturnType<typeof useTried>; any: boolean }) {
  const { sample, setChosen, result } = tried;
  const data = result.data;
  return (
    <>
      <Head title="Tried on" right={data && any ? `${plural(data.found, 'place')} replaced` : ''} />
      <p className="pt-2 text-proc leading-7">
        <ArticleChoice
          label="Article to try the rules on"
          value={sample && 'article' in sample ? sample.article : null}
          onChoose={(article) => setChosen({ article })}
        >
          {sample && 'article' in sample ? data?.title || 'an article' : 'an article of ours'}
        </ArticleChoice>{' '}
        or{' '}
        <Word
          label="A text to try the rules on"
          editor={(close) => (
            <LinesOnce
              label="A text to try the rules on"
              rows={8}
              value={sample && 'text' in sample ? sample.text : ''}
              hint="Paste a text. It is kept nowhere."
              onPut={(text) => setChosen({ text: text.slice(0, 200_000) })}
              close={close}
            />
          )}
        >
          {sample && 'text' in sample ? 'the text you pasted' : 'a text of your own'}
        </Word>
        . Nothing is changed by trying.
      </p>
      {result.isError ? <Trouble>{inWords(result.error)}</Trouble> : null}
      {result.isPending ? <Loading rows={3} /> : null}
      {data && any && data.found === 0 ? (
        <Empty>None of the rules of ‘{style.name}’ finds anything in it.</Empty>
      ) : null}
      <ul>
        {(any ? (data?.places ?? []) : []).map(({ block, from, to, before, after }, i) => (
          <li key={`${i} ${block}`} className="border-b border-rule-soft py-1.5 font-read text-[15px] leading-6">
            {before === '' ? '' : `…${before}`}
            <s className="text-red">{from}</s>
            {to === '' ? '' : <b className="pl-1">{to}</b>}
            {after === '' ? '' : `${after}…`}
          </li>
        ))}
      </ul>
      {data && any && data.found > data.places.length ? (
        <p className="pt-2 text-small text-ink-3">and {data.found - data.places.length} more.</p>
      ) : null}
    </>
  );
}
