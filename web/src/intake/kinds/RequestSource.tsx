import { Made, type RequestSettings, type SourceWhole } from '@grivo/contract';
import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation } from '@tanstack/react-query';
import { useForm, useWatch } from 'react-hook-form';
import { z } from 'zod';
import { call, inWords } from '../../api/call.ts';
import { freshKey } from '../../api/fresh.ts';
import { queryClient } from '../../api/queries.ts';
import { Button, DoneHere, Field, TextArea, Trouble } from '../../design/index.ts';
import { plural } from '../../words/figures.ts';
import { ItemsSource } from '../items/ItemsSource.tsx';
import { ExcludeWord } from '../LookWords.tsx';
import { useChange } from '../useSource.ts';

/** Subjects with notes, typed in: each is there at once for its pipelines. */
export function RequestSource({ source, settings }: { source: SourceWhole; settings: RequestSettings }) {
  const change = useChange(source);
  return (
    <ItemsSource
      source={source}
      says="requests"
      one="request"
      looks={false}
      sentence={
        <p>
          Type a subject and what you know of it; pipelines that take from here and are on take it at once. Leave out
          subjects with{' '}
          <ExcludeWord exclude={settings.exclude} onChange={(exclude) => change.mutate({ ...settings, exclude })} />.
        </p>
      }
      above={<RequestForm source={source.id} />}
      empty="Nothing asked for yet."
    />
  );
}

const wordsOf = (text: string) => text.split(/\s+/).filter((word) => word !== '').length;

/** What is typed to ask for an article. */
const Draft = z.object({
  subject: z.string().trim().min(1, 'What it is to be about.'),
  notes: z.string(),
  link: z
    .string()
    .trim()
    .refine((text) => text === '' || /^https?:\/\/\S+$/i.test(text), 'An address as https://…, or nothing.'),
});
type Draft = z.infer<typeof Draft>;

const EMPTY: Draft = { subject: '', notes: '', link: '' };

/** Puts a request into a source. */
const useAsking = (source: string, onAsked: () => void) =>
  useMutation({
    mutationFn: ({ subject, notes, link }: Draft) =>
      call('POST', `/sources/${source}/requests`, {
        body: { subject, notes, link: link === '' ? null : link },
        answer: Made,
        key: freshKey(),
      }),
    onSuccess: () => {
      onAsked();
      for (const key of ['items', 'sources', 'source', 'pipelines'])
        void queryClient.invalidateQueries({ queryKey: [key] });
    },
  });

function RequestForm({ source }: { source: string }) {
  const {
    register,
    handleSubmit,
    reset,
    control,
    formState: { errors },
  } = useForm<Draft>({ defaultValues: EMPTY, resolver: zodResolver(Draft) });
  const put = useAsking(source, () => reset(EMPTY));
  const [subject, notes] = useWatch({ control, name: ['subject', 'notes'] });
  const words = wordsOf(notes);
  return (
    <form
      className="-mx-8 grid grid-cols-[minmax(0,1fr)_minmax(0,1.6fr)_auto] items-start gap-x-6 border-t border-rule px-8 py-3"
      onSubmit={handleSubmit((draft) => put.mutate(draft))}
    >
      <div className="flex flex-col gap-2">
        <Field label="Subject" wrong={errors.subject?.message} {...register('subject')} />
        <Field
          label="Link, if there is one"
          placeholder="https://…"
          wrong={errors.link?.message}
          {...register('link')}
        />
      </div>
      <TextArea
        label="Notes to write from"
        rows={5}
        hint={
          words === 0
            ? 'Facts, figures, names: an article says no more than stands here or is looked up.'
            : `${plural(words, 'word')}; by themselves enough for about ${Math.floor(words * 0.8)}.`
        }
        {...register('notes')}
      />
      <div className="pt-4">
        <Button look="line" type="submit" disabled={subject.trim() === ''} busy={put.isPending ? 'Adding' : null}>
          Ask for it
        </Button>
      </div>
      {put.isSuccess && subject === '' ? <DoneHere>Added.</DoneHere> : null}
      {put.isError ? (
        <div className="col-span-3">
          <Trouble>{inWords(put.error)}</Trouble>
        </div>
      ) : null}
    </form>
  );
}
