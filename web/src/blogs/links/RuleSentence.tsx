import type { Rule, RuleFields } from '@grivo/contract';
import { inWords } from '../../api/call.ts';
import { Button, ChoiceWord, LinesOnce, NumberOnce, TextWord, Trouble, Word } from '../../design/index.ts';
import { times, useChangeRule } from './useLinks.ts';

/** One rule as a sentence whose words can be changed. */
export function RuleSentence({ rule, blog, onRemove }: { rule: Rule; blog: string; onRemove: () => void }) {
  const change = useChangeRule(blog);
  const put = (next: Partial<RuleFields>) => change.mutate({ rule, change: next });
  return (
    <div className="px-3 pt-1 pb-3">
      <p className="text-proc leading-7">
        Link{' '}
        <TextWord label="Words to link" value={rule.words} onPut={(words) => words && put({ words })}>
          {rule.words}
        </TextWord>{' '}
        <Forms rule={rule} put={put} /> to{' '}
        <Word
          label="Where it leads"
          editor={(close) => (
            <LinesOnce
              label="Where it leads"
              rows={3}
              value={rule.address}
              hint="A whole web address, as https://shop.example/lids"
              problemOf={addressProblem}
              onPut={(address) => put({ address })}
              close={close}
            />
          )}
        >
          {rule.address}
        </Word>
        , at most <Amount rule={rule} put={put} /> an article, <Where rule={rule} put={put} />. Never in a heading, a
        quotation or a link. <Marked rule={rule} put={put} />
        <Holds rule={rule} blog={blog} put={put} />
      </p>
      {change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
      <Button look="quiet" onClick={onRemove} aria-label={`Remove this rule: ${rule.words}`}>
        Remove this rule
      </Button>
    </div>
  );
}

interface Part {
  rule: Rule;
  put: (change: Partial<RuleFields>) => void;
}

export const addressProblem = (text: string): string | null =>
  /^https?:\/\/[^\s/]\S*$/.test(text.trim()) && URL.canParse(text.trim())
    ? null
    : 'That is no web address: it begins with https:// and has no spaces.';

function Forms({ rule, put }: Part) {
  return (
    <>
      <ChoiceWord
        label="Forms"
        value={rule.forms ? 'forms' : 'as it is'}
        options={[
          { value: 'forms', says: 'and its forms', does: 'plurals and genitives are linked too' },
          { value: 'as it is', says: 'as it stands', does: 'no other form of the word is linked' },
        ]}
        onChoose={(chosen) => put({ forms: chosen === 'forms' })}
      />
      , in{' '}
      <ChoiceWord
        label="Capitals"
        value={rule.anyCase ? 'any' : 'exact'}
        options={[
          { value: 'any', says: 'capitals or not', does: 'written large or small, it is the same word' },
          { value: 'exact', says: 'just these capitals', does: 'for names that are also common words' },
        ]}
        onChoose={(chosen) => put({ anyCase: chosen === 'any' })}
      />
      ,
    </>
  );
}

function Amount({ rule, put }: Part) {
  return (
    <Word
      label="Links an article"
      editor={(close) => (
        <NumberOnce
          value={rule.most}
          least={1}
          most={20}
          unit="links an article"
          onPut={(most) => put({ most })}
          close={close}
        />
      )}
    >
      {times(rule.most)}
    </Word>
  );
}

function Where({ rule, put }: Part) {
  return (
    <>
      <ChoiceWord
        label="Places"
        value={rule.placing}
        options={[
          { value: 'first', says: 'where it is said first', does: 'the first places are linked' },
          { value: 'spread', says: 'spread over the text', does: 'the places lie as far apart as they can' },
        ]}
        onChoose={(placing) => put({ placing })}
      />{' '}
      <Word
        label="After so many words"
        editor={(close) => (
          <NumberOnce
            value={rule.after}
            least={0}
            most={10_000}
            unit="words go by first"
            onPut={(after) => put({ after })}
            close={close}
          />
        )}
      >
        {rule.after === 0 ? 'from the beginning' : `after ${rule.after} words`}
      </Word>
    </>
  );
}

function Marked({ rule, put }: Part) {
  return (
    <>
      It is{' '}
      <ChoiceWord
        label="Marked"
        value={rule.sponsored ? 'sponsored' : 'plain'}
        options={[
          {
            value: 'sponsored',
            says: 'marked as sponsored',
            does: 'search engines are told that somebody pays for it',
          },
          { value: 'plain', says: 'a plain link', does: 'for what nobody pays for' },
        ]}
        onChoose={(chosen) => put({ sponsored: chosen === 'sponsored' })}
      />
    </>
  );
}

function Holds({ rule, blog, put }: Part & { blog: string }) {
  return (
    <>
      {' '}
      and holds for{' '}
      <ChoiceWord
        label="Holds for"
        value={rule.blog === null ? 'every' : 'this'}
        options={[
          { value: 'this', says: 'this blog', does: 'other blogs do not know it' },
          { value: 'every', says: 'every blog', does: 'the same on all of them' },
        ]}
        onChoose={(chosen) => put({ blog: chosen === 'every' ? null : blog })}
      />
      .
    </>
  );
}
