import { FORMS_OF_ADDRESS, type FormOfAddress, PERSONS, type Person, SPELLINGS, type Spelling } from '@grivo/core';
import { ChoiceWord, Head, LinesOnce, Word } from '../design/index.ts';
import type { StyleEdit } from './useStyle.ts';

const AS: Record<Person, string> = {
  'first person singular': 'as “I”',
  'first person plural': 'as “we”',
  'second person': 'to “you”',
  'third person': 'of the matter alone',
};
const ADDRESS: Record<FormOfAddress, { says: string; does: string }> = {
  'as it fits': { says: 'as it fits', does: 'the writer chooses, where the language has two ways' },
  familiar: { says: 'familiarly', does: 'du, tu, tú' },
  formal: { says: 'formally', does: 'Sie, vous, usted' },
};

/** What the writer is told of the voice, in sentences whose words are changed in place. */
export function InWords({ edit: { words, put } }: { edit: StyleEdit }) {
  return (
    <>
      <Head title="In words" right="what the writer is told" />
      <p className="pt-2 text-proc leading-7">
        Speak{' '}
        <ChoiceWord
          label="Who it speaks as"
          value={words.person ?? ''}
          options={[
            { value: '', says: 'as each step says', does: 'the house does not mind' },
            ...PERSONS.map((one) => ({ value: one, says: AS[one], does: one })),
          ]}
          onChoose={(person) => put({ person: person === '' ? null : (person as Person) })}
        />
        , addressing readers{' '}
        <ChoiceWord
          label="How readers are addressed"
          value={words.address}
          options={FORMS_OF_ADDRESS.map((value) => ({ value, ...ADDRESS[value] }))}
          onChoose={(address) => put({ address })}
        />
        . Spell English{' '}
        <ChoiceWord
          label="Spelling"
          value={words.spelling ?? ''}
          options={[
            { value: '', says: 'as it comes', does: 'colour or color' },
            ...SPELLINGS.map((value) => ({
              value,
              says: `the ${value} way`,
              does: value === 'British' ? 'colour, litre, organise' : 'color, liter, organize',
            })),
          ]}
          onChoose={(spelling) => put({ spelling: spelling === '' ? null : (spelling as Spelling) })}
        />
        .
      </p>
      {words.voice === '' ? null : <p className="pt-1 text-proc leading-7 whitespace-pre-line">{words.voice}</p>}
      <p className="pt-1 text-proc leading-7">
        <Word
          label="How it sounds"
          editor={(close) => (
            <LinesOnce
              label="How it sounds"
              rows={9}
              value={words.voice}
              hint="Whole sentences, as you would tell a new colleague. At most 4,000 letters."
              problemOf={(text) => (text.length > 4_000 ? `It has ${text.length} letters; 4,000 are the most.` : null)}
              onPut={(voice) => put({ voice })}
              close={close}
            />
          )}
        >
          {words.voice === '' ? 'Say how it sounds' : 'Say it otherwise'}
        </Word>
      </p>
    </>
  );
}
