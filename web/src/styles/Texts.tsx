import { HouseStyleWhole } from '@grivo/contract';
import { FIGURES, languageName, rounded } from '@grivo/core';
import { type UseMutationResult, useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { call, inWords, Refused } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { Button, Confirm, Empty, Field, Head, TextArea, Trouble } from '../design/index.ts';
import { FileButton } from '../intake/FileButton.tsx';
import { ArticleChoice } from '../parts/ArticleChoice.tsx';
import { count } from '../words/figures.ts';
import { keepStyle } from './useStyle.ts';

/** The texts a style is learnt from; more are given, and what they have in common is taken over. */
export function Texts({ style }: { style: HouseStyleWhole }) {
  const { id, samples } = style;
  const out = useMutation({
    mutationFn: (text: string) => call('DELETE', `/styles/${id}/texts/${text}`, { answer: HouseStyleWhole }),
    onSuccess: keepStyle,
  });
  return (
    <div className="-mx-8 grid grid-cols-[minmax(0,1fr)_400px] border-t border-ink max-[1100px]:grid-cols-1">
      <section className="px-8 pb-8">
        <Head title="Texts it was learnt from" right={`${count(style.learnt?.words ?? 0)} words`} />
        {samples.length === 0 ? (
          <Empty>
            None yet. Give it texts that sound as you want to sound, six or more: your own, never those of others.
          </Empty>
        ) : null}
        <ul>
          {samples.map((text) => (
            <li key={text.id} className="row flex min-h-12 flex-wrap items-center gap-x-4">
              <span className="min-w-0 flex-1">
                <span className="block truncate text-proc font-medium">{text.name}</span>
                <span className="block truncate text-small text-ink-3">
                  {languageName(text.language)}
                  {text.address === '' ? ', pasted or ours' : `, ${text.address}`}
                </span>
              </span>
              <span className="w-28 text-right text-small">{count(text.words)} words</span>
              <span className="w-40 text-right text-small text-ink-2">
                {rounded(text.figures.sentence, FIGURES.sentence.digits)} a sentence
              </span>
              <Button look="quiet" onClick={() => out.mutate(text.id)} aria-label={`Take it out: ${text.name}`}>
                Take it out
              </Button>
            </li>
          ))}
        </ul>
        {out.isError ? <Trouble>{inWords(out.error)}</Trouble> : null}
        <Learn style={style} />
      </section>
      <section className="border-l border-rule px-6 pb-8 max-[1100px]:border-l-0 max-[1100px]:px-8">
        <Give id={id} />
      </section>
    </div>
  );
}

/** Takes over what the texts have in common. */
function Learn({ style }: { style: HouseStyleWhole }) {
  const [, setSearch] = useSearchParams();
  const [asking, setAsking] = useState(false);
  const learn = useMutation({
    mutationFn: (describe: boolean) =>
      call('POST', `/styles/${style.id}/learn`, { body: { describe }, rev: style.rev, answer: HouseStyleWhole }),
    onSuccess: (now) => {
      keepStyle(now);
      setSearch({});
    },
  });
  if (!style.learnt) return null;
  const described = style.document.voice !== '' && style.document.voice !== style.learnt.describes;
  return (
    <div className="pt-4">
      <Head title="What they have in common" />
      <p className="pt-2 font-read text-[16px] leading-7">{style.learnt.describes}</p>
      <div className="flex flex-wrap items-baseline gap-4 pt-3">
        <Button look="solid" busy={learn.isPending ? 'Learning' : null} onClick={() => learn.mutate(!described)}>
          Hold articles to their figures
        </Button>
        {described ? (
          <>
            <Button look="quiet" onClick={() => setAsking(true)}>
              and describe it by them
            </Button>
            <Confirm
              open={asking}
              onOpen={setAsking}
              title="Describe it anew?"
              says="The description you wrote gives way to this one. The versions keep yours."
              does="Describe it anew"
              onDo={() => learn.mutate(true)}
            />
          </>
        ) : null}
      </div>
      <p className="pt-2 text-small text-ink-3">
        {style.samples.length < 6 ? 'From fewer than six texts the ranges are rough. ' : ''}
        {described ? 'Your own description stays.' : 'The description is yours to change afterwards.'}
      </p>
      {learn.isError ? <Trouble>{inWords(learn.error)}</Trouble> : null}
    </div>
  );
}

const READABLE = /\.(?:txt|md|markdown|html?|csv)$/i;
const MOST_LETTERS = 500_000;

type Giving = UseMutationResult<HouseStyleWhole, Error, object>;

/** Gives a text: pasted, at an address, a file, or an article of ours. */
function Give({ id }: { id: string }) {
  const give = useMutation({
    mutationFn: (body: object) => call('POST', `/styles/${id}/texts`, { body, answer: HouseStyleWhole }),
    onSuccess: keepStyle,
  });
  return (
    <>
      <Head title="Give it a text" />
      <Pasted give={give} />
      <Standing give={give} />
      <Ours give={give} />
      {give.isError ? <Trouble>{inWords(give.error)}</Trouble> : null}
    </>
  );
}

function Pasted({ give }: { give: Giving }) {
  const [name, setName] = useState('');
  const [text, setText] = useState('');
  const words = text.trim() === '' ? 0 : text.trim().split(/\s+/).length;
  const clear = () => {
    setName('');
    setText('');
  };
  return (
    <form
      className="flex flex-col gap-3 pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        const first = text.trim().split('\n')[0]!.slice(0, 80);
        give.mutate({ name: name.trim() || first || 'A text', text }, { onSuccess: clear });
      }}
    >
      <Field
        label="What it is called; its first line, if nothing"
        value={name}
        maxLength={120}
        onChange={(event) => setName(event.target.value)}
      />
      <TextArea
        label="The text"
        rows={8}
        value={text}
        hint={words === 0 ? 'Paste a whole text here.' : `${count(words)} words`}
        onChange={(event) => setText(event.target.value)}
      />
      <span className="flex items-baseline gap-4">
        <Button look="line" type="submit" disabled={text.trim() === ''} busy={give.isPending ? 'Reading' : null}>
          Give it
        </Button>
        <FileButton
          says="or files of text"
          busy="Reading…"
          accept=".txt,.md,.markdown,.html,.htm"
          many
          onFiles={async (files) => {
            for (const file of files) await give.mutateAsync(await textIn(file));
          }}
        />
      </span>
    </form>
  );
}

function Standing({ give }: { give: Giving }) {
  const [address, setAddress] = useState('');
  return (
    <form
      className="flex items-end gap-3 pt-5"
      onSubmit={(event) => {
        event.preventDefault();
        const typed = address.trim();
        const body = { address: /^https?:/.test(typed) ? typed : `https://${typed}` };
        give.mutate(body, { onSuccess: () => setAddress('') });
      }}
    >
      <div className="flex-1">
        <Field label="Or where it stands" value={address} onChange={(event) => setAddress(event.target.value)} />
      </div>
      <Button look="line" type="submit" disabled={address.trim() === ''} busy={give.isPending ? 'Reading' : null}>
        Read it
      </Button>
    </form>
  );
}

function Ours({ give }: { give: Giving }) {
  const any = useQuery(read.someArticles('', 1)).data?.articles.length ?? 0;
  if (any === 0) return null;
  return (
    <p className="pt-5">
      Or{' '}
      <ArticleChoice label="An article of ours" value={null} onChoose={(article) => give.mutate({ article })}>
        an article of ours
      </ArticleChoice>
      , one you are content with.
    </p>
  );
}

/** A file as a text to be given. */
async function textIn(file: File): Promise<{ name: string; text: string }> {
  if (!READABLE.test(file.name))
    throw new Refused({
      type: 'about:blank',
      status: 422,
      title: 'No file of text',
      detail: `‘${file.name}’ is no file of text.`,
      mend: 'Give Markdown, HTML or plain text, or paste it.',
    });
  return { name: file.name.slice(0, 120), text: (await textOf(file)).slice(0, MOST_LETTERS) };
}

/** The words of a file; of a page what is read of it. */
async function textOf(file: File): Promise<string> {
  const body = await file.text();
  if (!/\.html?$/i.test(file.name)) return body;
  const page = new DOMParser().parseFromString(body, 'text/html');
  for (const part of page.querySelectorAll('script, style, nav, header, footer, noscript')) part.remove();
  return [...page.querySelectorAll('p, li, h1, h2, h3, blockquote')].map((one) => one.textContent).join('\n');
}
