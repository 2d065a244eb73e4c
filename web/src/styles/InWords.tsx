import { type HouseStyleWhole, StyleSample } from '@grivo/contract';
import {
  FIGURES,
  FORMS_OF_ADDRESS,
  type FormOfAddress,
  PERSONS,
  type Person,
  SPELLINGS,
  type Spelling,
} from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, ChoiceWord, Head, LinesOnce, Mark, Trouble, Word } from '../design/index.ts';
import { useNow } from '../shell/useNow.ts';
import { money, plural } from '../words/figures.ts';
import { inARow } from '../words/list.ts';
import { moment } from '../words/time.ts';
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

/** Two paragraphs written in the style, to hear it. */
export function Sample({ style }: { style: HouseStyleWhole }) {
  const { id, sample, samples, version } = style;
  const slots = useQuery(read.slots(null, 7)).data;
  const now = useNow(slots?.now, slots?.speed) ?? Date.now();
  const write = useMutation({
    mutationFn: () => call('POST', `/styles/${id}/sample`, { answer: StyleSample }),
    onSuccess: () => void queryClient.invalidateQueries({ queryKey: ['style', id] }),
  });
  if (samples.length === 0) return null;
  return (
    <div className="mt-3 border-t border-rule pt-2">
      <div className="flex flex-wrap items-baseline gap-x-4 text-small text-ink-3">
        <span>{sample ? 'Written in it, to be heard' : 'Hear it: two paragraphs written in it'}</span>
        <span className="ml-auto">
          {sample ? `${moment(sample.atDesk, now)}, ${money(sample.micros)}, ${plural(sample.words, 'word')}` : ''}
        </span>
        <Button look="quiet" busy={write.isPending ? 'Writing' : null} onClick={() => write.mutate()}>
          {sample ? 'Write another' : 'Write it'}
        </Button>
      </div>
      {write.isError ? <Trouble>{inWords(write.error)}</Trouble> : null}
      {sample ? (
        <>
          <blockquote className="mt-2 border-l-[5px] border-rule pl-6 font-read text-[16px] leading-[26px]">
            <p className="font-bold">{sample.heading}</p>
            {sample.paragraphs.map((text) => (
              <p key={text}>{text}</p>
            ))}
          </blockquote>
          <p className="flex items-baseline gap-2 pt-2 text-small">
            <Mark state={sample.outside.length === 0 ? 'done' : 'wait'} />
            <span>
              <SampleSays sample={sample} />
              {sample.version === version ? null : (
                <span className="text-ink-3"> Written in version {sample.version}; the style was changed since.</span>
              )}
            </span>
          </p>
        </>
      ) : null}
    </div>
  );
}

function SampleSays({ sample: { outside, reworded } }: { sample: StyleSample }) {
  return (
    <>
      {outside.length === 0
        ? 'All its figures lie in their ranges'
        : `Outside of their ranges: ${inARow(outside.map((name) => FIGURES[name].says.toLowerCase()))}`}
      {reworded.length === 0 ? '.' : '; put in the words of the house: '}
      {reworded.map(({ from, to }, i) => (
        <span key={`${from} ${to} ${i}`}>
          {i === 0 ? '' : ', '}
          <s className="text-ink-3">{from}</s> to <b>{to}</b>
        </span>
      ))}
      {reworded.length === 0 ? '' : '.'}
    </>
  );
}
