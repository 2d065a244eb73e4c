import { AnewPrice, type Article, ZIP_FORMS } from '@grivo/contract';
import { DEGREE_DOES, DEGREES, type Degree } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { call, fetchFile, inWords } from '../../api/call.ts';
import { read } from '../../api/queries.ts';
import { ChoiceEditor, Trouble, useMay, Word } from '../../design/index.ts';
import { useNow } from '../../shell/useNow.ts';
import { count, money } from '../../words/figures.ts';
import { saveAs } from '../../words/saveAs.ts';
import type { Many } from './useMany.ts';

/** More cannot be saved in one file, and of more no price is reckoned. */
const MOST_AT_ONCE = 500;

/** How many of those picked something fits, where that is not all of them. */
export function fits(some: readonly Article[], all: readonly Article[]): string {
  return some.length === 0 || some.length === all.length ? '' : ` (${count(some.length)})`;
}

const FROM = [
  { value: '0', says: 'the next ones', does: 'the first that are free on their blogs' },
  { value: '1', says: 'those from tomorrow on', does: 'free ones a day from now and later' },
  { value: '7', says: 'those in a week', does: 'free ones seven days from now and later' },
  { value: '14', says: 'those in two weeks', does: 'free ones fourteen days from now and later' },
  { value: '30', says: 'those in a month', does: 'free ones thirty days from now and later' },
];
const DAY = 86_400_000;

/** What has not gone to its blog yet. */
const WAITS: ReadonlySet<Article['standing']> = new Set(['in work', 'held', 'stopped', 'ready']);

/** Puts those that wait for a slot at free ones, in the order they are picked in. */
export function MoveAll({ picked, many }: { picked: readonly Article[]; many: Many }) {
  const coming = picked.filter(({ dueDesk, standing }) => dueDesk !== null && WAITS.has(standing));
  const slots = useQuery(read.slots(null, 7));
  const now = useNow(slots.data?.now, slots.data?.speed);
  if (coming.length === 0 || now === undefined) return null;
  return (
    <span className="whitespace-nowrap">
      move{fits(coming, picked)} to{' '}
      <Word
        label="Move to slots"
        editor={(close) => (
          <ChoiceEditor
            value=""
            options={FROM}
            onChoose={(days) => {
              const from = now + Number(days) * DAY;
              void many.start('Moving', coming, { path: 'many', body: { do: 'move', from } });
              close();
            }}
          />
        )}
      >
        free slots
      </Word>
    </span>
  );
}

/** Puts a label on all of them, or takes it off. */
export function LabelAll({ picked, many }: { picked: readonly Article[]; many: Many }) {
  const labels = useQuery(read.labels()).data?.labels ?? [];
  if (labels.length === 0) return null;
  return (
    <span className="whitespace-nowrap">
      label{' '}
      <Word
        label="Label them"
        editor={(close) => (
          <ChoiceEditor
            value=""
            options={labels.flatMap(({ id, name }) => [
              { value: `on ${id}`, says: `put ‘${name}’ on`, does: 'all that are picked carry it' },
              { value: `off ${id}`, says: `take ‘${name}’ off`, does: 'none that is picked carries it itself' },
            ])}
            onChoose={(said) => {
              const [how, label = ''] = said.split(' ');
              const on = how === 'on';
              void many.start(on ? 'Labelling' : 'Taking the label off', picked, {
                path: 'many',
                body: { do: 'label', label, on },
              });
              close();
            }}
          />
        )}
      >
        them
      </Word>
    </span>
  );
}

/** Puts the texts in other words, at a price that is said before. */
export function PutAll({ picked, many }: { picked: readonly Article[]; many: Many }) {
  const some = picked.filter(({ standing, words }) => words > 0 && standing !== 'set aside').slice(0, MOST_AT_ONCE);
  const may = useMay();
  if (some.length === 0 || !may) return null;
  return (
    <span className="whitespace-nowrap">
      put{fits(some, picked)}{' '}
      <Word
        label="Put in other words"
        editor={(close) => (
          <PutChoice
            articles={some.map(({ id }) => id)}
            onChoose={(degree) => {
              void many.start('Putting in other words', some, { path: 'many', body: { do: 'put', degree } });
              close();
            }}
          />
        )}
      >
        in other words
      </Word>
    </span>
  );
}

function PutChoice({ articles, onChoose }: { articles: readonly string[]; onChoose: (degree: Degree) => void }) {
  const price = useQuery({
    queryKey: ['put price', ...articles],
    queryFn: () => call('POST', '/articles/many/price', { body: { articles, degree: 'freely' }, answer: AnewPrice }),
    staleTime: 60_000,
    retry: false,
  });
  return (
    <>
      <p className="pb-2 text-small text-ink-3">
        {price.data
          ? `About ${money(price.data.micros)} for all of them. Figures, names and links stay; what each was stays among its revisions.`
          : price.isError
            ? inWords(price.error)
            : 'Reckoning what it costs…'}
      </p>
      <ChoiceEditor
        value=""
        options={
          price.data ? DEGREES.map((degree) => ({ value: degree, says: degree, does: DEGREE_DOES[degree] })) : []
        }
        onChoose={(value) => onChoose(value as Degree)}
      />
    </>
  );
}

/** Saves them in one file of the form that is chosen. */
export function SaveAll({ picked }: { picked: readonly Article[] }) {
  const save = useMutation({
    mutationFn: async (form: string) => {
      const ids = picked.slice(0, MOST_AT_ONCE).map(({ id }) => id);
      const asked = `/articles/zip?as=${encodeURIComponent(form)}&articles=${ids.join(',')}`;
      saveAs(await fetchFile(asked), `articles-${ids.length}.zip`);
    },
  });
  return (
    <span className="whitespace-nowrap">
      {save.isPending ? (
        'Saving…'
      ) : (
        <>
          save{picked.length > MOST_AT_ONCE ? ` the first ${MOST_AT_ONCE}` : ''} as{' '}
          <Word
            anyone
            label="Save as"
            editor={(close) => (
              <ChoiceEditor
                value=""
                options={ZIP_FORMS.map((form) => ({ value: form, says: form, does: 'one file each, in a zip' }))}
                onChoose={(form) => {
                  save.mutate(form);
                  close();
                }}
              />
            )}
          >
            files
          </Word>
        </>
      )}
      {save.isError ? <Trouble>{inWords(save.error)}</Trouble> : null}
    </span>
  );
}
