import { countVariants, STANDING_PLACES, type StandingPlace, type StandingWords, variantProblem } from '@grivo/core';
import { Button, ChoiceWord, Head, LinesOnce, NumberOnce, Word } from '../design/index.ts';
import { Variants } from '../parts/Propose.tsx';
import { count } from '../words/figures.ts';
import { CallToReaders, ClosingLink } from './Ends.tsx';
import { linesIn } from './houseWords.ts';
import type { StyleEdit } from './useStyle.ts';

/** What stands in every article: texts of the house, what readers are asked to do, what they are told. */
export function Standing({ edit: { words, put } }: { edit: StyleEdit }) {
  const change = (at: number, next: Partial<StandingWords> | null) =>
    put(({ standing }) => ({
      standing: next
        ? standing.map((one, i) => (i === at ? { ...one, ...next } : one))
        : standing.filter((_, i) => i !== at),
    }));
  const add = (text: string, markup: boolean) =>
    put(({ standing }) => ({ standing: [...standing, { at: 'at the end', section: 1, texts: [text], markup }] }));
  return (
    <div className="pt-4">
      <Head title="Standing text" right="in every article" />
      <ul>
        {words.standing.map((one, i) => (
          <li key={`${i} ${one.texts[0]}`} className="border-b border-rule-soft py-2">
            <OneStanding standing={one} onPut={(next) => change(i, next)} />
          </li>
        ))}
      </ul>
      <p className="flex gap-5 pt-1">
        <Button look="quiet" onClick={() => add('Say here what stands in every article.', false)}>
          Add a text
        </Button>
        <Button look="quiet" onClick={() => add('<p>Your markup</p>', true)}>
          Add markup of your own
        </Button>
      </p>
      <CallToReaders edit={{ words, put, error: null }} />
      <ClosingLink edit={{ words, put, error: null }} />
      <p className="pt-1 text-proc leading-7">
        Readers are told:{' '}
        <Word
          label="What readers are told"
          editor={(close) => (
            <LinesOnce
              label="What readers are told"
              rows={3}
              value={words.disclosure}
              hint="How it was made, or who pays. It stands last; fields are said as {{ subject }}."
              problemOf={(text) => (text.length > 500 ? '500 letters are the most.' : null)}
              onPut={(disclosure) => put({ disclosure })}
              close={close}
            />
          )}
        >
          {words.disclosure || 'nothing'}
        </Word>
      </p>
    </div>
  );
}

const DOES: Record<StandingPlace, string> = {
  'above the opening': 'the first thing readers see',
  'below the opening': 'after the first paragraph',
  'before the first quotation': 'at the end, where there is none',
  'after a section': 'of an article with fewer, after its last',
  'at the end': 'after everything else',
};

function OneStanding({
  standing: { at, section, texts, markup },
  onPut,
}: {
  standing: StandingWords;
  onPut: (next: Partial<StandingWords> | null) => void;
}) {
  const ways = markup ? 1 : countVariants(texts);
  return (
    <>
      {markup ? (
        <p className="fig line-clamp-3 break-all">{texts[0]}</p>
      ) : (
        <p className="font-read text-[15px] leading-6 break-words italic">{texts[0]}</p>
      )}
      <p className="flex flex-wrap items-baseline gap-x-3 pt-0.5 text-small text-ink-2">
        <StandingWord texts={texts} markup={markup} onPut={onPut} />
        <span>
          stands{' '}
          <ChoiceWord
            label="Where it stands"
            value={at}
            options={STANDING_PLACES.map((value) => ({ value, says: value, does: DOES[value] }))}
            onChoose={(place) => onPut({ at: place })}
          />
          {at === 'after a section' ? (
            <>
              {' '}
              number{' '}
              <Word
                label="Which section"
                editor={(close) => (
                  <NumberOnce
                    value={section}
                    least={1}
                    most={50}
                    unit="section"
                    onPut={(n) => onPut({ section: n })}
                    close={close}
                  />
                )}
              >
                {section}
              </Word>
            </>
          ) : null}
          {ways > 1 ? <span className="text-ink-3"> · one of {count(ways)} ways to say it</span> : null}
        </span>
        <Button look="quiet" className="ml-auto" onClick={() => onPut(null)}>
          Take it out
        </Button>
      </p>
    </>
  );
}

/** What is said there: several texts one of which is chosen, or markup. */
function StandingWord({
  texts,
  markup,
  onPut,
}: Pick<StandingWords, 'texts' | 'markup'> & { onPut: (next: Partial<StandingWords>) => void }) {
  return (
    <Word
      label="The text"
      editor={(close) =>
        markup ? (
          <LinesOnce
            label="The markup"
            rows={8}
            value={texts[0] ?? ''}
            hint="HTML of your own. It goes to your blogs as it stands here; fields are said as {{ subject }} and can bring no markup along."
            problemOf={(text) =>
              text.trim() === ''
                ? 'Say something, or take it out.'
                : text.length > 2_000
                  ? '2,000 letters are the most.'
                  : null
            }
            onPut={(text) => onPut({ texts: [text] })}
            close={close}
          />
        ) : (
          <LinesOnce
            label="The text"
            rows={6}
            value={texts.join('\n')}
            hint="One a line; of several one is chosen for each article. Lists in braces: {brief|short}. Fields: {{ subject }}. Links: [words](https://…)."
            problemOf={(text) => {
              const lines = linesIn(text);
              if (lines.length === 0) return 'Say something, or take the text out.';
              if (lines.length > 50) return '50 texts are the most.';
              return lines.map(variantProblem).find((problem) => problem !== null) ?? null;
            }}
            more={(text, add) => <Variants texts={linesIn(text)} onProposed={add} />}
            onPut={(text) => onPut({ texts: linesIn(text) })}
            close={close}
          />
        )
      }
    >
      {markup ? 'Change the markup' : texts.length === 1 ? 'Change the text' : `${texts.length} texts`}
    </Word>
  );
}
