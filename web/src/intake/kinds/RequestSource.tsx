import { Made, type RequestSettings, type SourceWhole } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../../api/call.ts';
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

function RequestForm({ source }: { source: string }) {
  const [subject, setSubject] = useState('');
  const [notes, setNotes] = useState('');
  const [link, setLink] = useState('');
  const put = useMutation({
    mutationFn: () =>
      call('POST', `/sources/${source}/requests`, {
        body: { subject, notes, link: link.trim() === '' ? null : link.trim() },
        answer: Made,
        key: crypto.randomUUID(),
      }),
    onSuccess: () => {
      setSubject('');
      setNotes('');
      setLink('');
      for (const key of ['items', 'sources', 'source', 'pipelines'])
        void queryClient.invalidateQueries({ queryKey: [key] });
    },
  });
  const words = wordsOf(notes);
  return (
    <form
      className="-mx-8 grid grid-cols-[minmax(0,1fr)_minmax(0,1.6fr)_auto] items-start gap-x-6 border-t border-rule px-8 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (subject.trim() !== '') put.mutate();
      }}
    >
      <div className="flex flex-col gap-2">
        <Field label="Subject" value={subject} onChange={(event) => setSubject(event.target.value)} />
        <Field
          label="Link, if there is one"
          value={link}
          placeholder="https://…"
          onChange={(event) => setLink(event.target.value)}
        />
      </div>
      <TextArea
        label="Notes to write from"
        rows={5}
        value={notes}
        hint={
          words === 0
            ? 'Facts, figures, names: an article says no more than stands here or is looked up.'
            : `${plural(words, 'word')}; by themselves enough for about ${Math.floor(words * 0.8)}.`
        }
        onChange={(event) => setNotes(event.target.value)}
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
