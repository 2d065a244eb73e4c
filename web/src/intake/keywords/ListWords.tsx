import type { KeywordSettings } from '@grivo/contract';
import { OPPORTUNITY, opportunityProblem } from '@grivo/core';
import { useState } from 'react';
import { ChoiceWord, ExpressionEditor, TextEditor, Word } from '../../design/index.ts';
import { webAddress } from '../../words/address.ts';
import { ExcludeWord } from '../LookWords.tsx';

type Change = (settings: KeywordSettings) => void;

const SPELLINGS = [
  { value: 'as typed', says: 'as typed', does: 'two spellings of a phrase count as the same; the first is kept' },
  { value: 'British', says: 'the British way', does: 'mould, flavour, litre; counts for what is added from now on' },
  { value: 'American', says: 'the American way', does: 'mold, flavor, liter; counts for what is added from now on' },
];

const LINES = [
  { value: 'phrases', says: 'phrases', does: 'separated by commas, semicolons, tabs or lines' },
  { value: 'titles', says: 'a title each', does: 'separated by lines only; the article keeps the title it came with' },
  {
    value: 'descriptions',
    says: 'a description each',
    does: 'separated by lines only; a sentence or two of what is wanted',
  },
];

const GROUPS = [
  { value: 'each', says: 'not at all', does: 'each phrase is an article of its own' },
  { value: 'closely', says: 'closely', does: 'phrases that clearly ask the same, by words and by what searches give' },
  { value: 'loosely', says: 'loosely', does: 'fewer and larger groups' },
];

const says = (options: readonly { value: string; says: string }[], value: string) =>
  options.find((option) => option.value === value)?.says ?? value;

/** What of a list is left out, how it is spelt and grouped, and which site it watches, as a sentence. */
export function ListWords({ settings, onChange }: { settings: KeywordSettings; onChange: Change }) {
  return (
    <>
      Lines are{' '}
      <ChoiceWord
        label="Lines are"
        value={settings.lines}
        options={LINES}
        onChoose={(lines) => onChange({ ...settings, lines: lines as KeywordSettings['lines'] })}
      >
        {says(LINES, settings.lines)}
      </ChoiceWord>
      ; leave out those with{' '}
      <ExcludeWord
        exclude={settings.exclude}
        onChange={(exclude) => onChange({ ...settings, exclude })}
        label="Leave out phrases with"
      />
      ; spell them{' '}
      <ChoiceWord
        label="Spell them"
        value={settings.spelling}
        options={SPELLINGS}
        onChoose={(spelling) => onChange({ ...settings, spelling: spelling as KeywordSettings['spelling'] })}
      >
        {says(SPELLINGS, settings.spelling)}
      </ChoiceWord>
      ; group them{' '}
      <ChoiceWord
        label="Group them"
        value={settings.group}
        options={GROUPS}
        onChoose={(group) => onChange({ ...settings, group: group as KeywordSettings['group'] })}
      >
        {says(GROUPS, settings.group)}
      </ChoiceWord>
      ; watch <SiteWord settings={settings} onChange={onChange} />; figures of{' '}
      <CountryWord settings={settings} onChange={onChange} />
    </>
  );
}

/** The address as it was meant: https where no scheme is given. */
function addressOf(text: string): string | null {
  return webAddress(text) || null;
}

function SiteWord({ settings, onChange }: { settings: KeywordSettings; onChange: Change }) {
  const [text, setText] = useState(settings.site ?? '');
  return (
    <Word
      label="Watch the site"
      editor={(close) => (
        <TextEditor
          label="Address of a site"
          value={text}
          hint="Yours or another’s. What it is found for comes in when the list is looked at. Empty watches none. Press Enter to save."
          onChange={setText}
          onDone={() => {
            onChange({ ...settings, site: addressOf(text) });
            close();
          }}
        />
      )}
    >
      {settings.site === null ? 'no site' : new URL(settings.site).host}
    </Word>
  );
}

function CountryWord({ settings, onChange }: { settings: KeywordSettings; onChange: Change }) {
  const [text, setText] = useState(settings.country ?? '');
  return (
    <Word
      label="As searched for in"
      editor={(close) => (
        <TextEditor
          label="Country"
          value={text}
          hint="Two letters, as IE or DE. Empty is anywhere. Press Enter to save."
          onChange={setText}
          onDone={() => {
            const country = text.trim().toUpperCase();
            onChange({ ...settings, country: country === '' ? null : country });
            close();
          }}
        />
      )}
    >
      {settings.country === null ? 'anywhere' : `in ${settings.country}`}
    </Word>
  );
}

/** The formula as people write it. */
const shown = (formula: string) => formula.replaceAll('*', '×').replaceAll('/', '÷').replaceAll(' - ', ' − ');

/** What opportunity is, to be changed where it is said. */
export function FormulaWord({ settings, onChange }: { settings: KeywordSettings; onChange: Change }) {
  const [text, setText] = useState(settings.opportunity);
  const keep = (formula: string) => {
    if (formula !== settings.opportunity && opportunityProblem(formula) === null)
      onChange({ ...settings, opportunity: formula });
  };
  return (
    <Word
      label="Opportunity"
      onOpen={(open) => (open ? setText(settings.opportunity) : keep(text))}
      editor={(close) => (
        <>
          <ExpressionEditor
            label="Opportunity of a phrase"
            value={text}
            problemOf={opportunityProblem}
            functions={[]}
            fields={['volume', 'difficulty', 'words']}
            onChange={setText}
          />
          {settings.opportunity === OPPORTUNITY ? null : (
            <button
              type="button"
              className="act quiet brackets mt-2 text-small"
              onClick={() => {
                setText(OPPORTUNITY);
                keep(OPPORTUNITY);
                close();
              }}
            >
              As it was: {shown(OPPORTUNITY)}
            </button>
          )}
        </>
      )}
    >
      {shown(settings.opportunity)}
    </Word>
  );
}
