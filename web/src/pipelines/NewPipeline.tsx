import { type Blog, MadePipeline, type Source } from '@grivo/contract';
import {
  allSteps,
  languageName,
  type ProcedureDocument,
  SHIPPED,
  sheetColumns,
  shipped,
  stepKinds,
  withoutSources,
} from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { ChoiceWord, NameForm, Tick, Trouble } from '../design/index.ts';

/** A procedure to be made from nothing: it only takes. */
const EMPTY = {
  key: 'nothing',
  name: 'nothing yet',
  says: 'only takes items; you add every other step',
  make: ({ source, language }: { source: string; language: string }) => ({
    grivo: 1 as const,
    language,
    steps: [{ ...stepKinds.take.fresh('s1'), sources: source === '' ? [] : [source] }],
  }),
};

type Beginning = ReturnType<typeof useBeginning>;

/** What a new pipeline begins with: a shipped procedure or nothing, a source that fits it, the blog it goes to. */
function useBeginning(given: string | null, wanted: string | null) {
  const [key, setKey] = useState(SHIPPED.some((one) => one.key === given) ? given! : 'guides');
  const [chosen, setSource] = useState(wanted);
  const [to, setBlog] = useState<string | null>(null);
  const from = key === EMPTY.key ? EMPTY : shipped(key);
  const blogs = useQuery(read.blogs());
  const sources = useQuery(read.sources()).data?.sources ?? [];
  const open = (blogs.data?.blogs ?? []).filter(({ archived }) => !archived);
  const blog = open.find(({ id }) => id === to) ?? (open.length === 1 ? open[0] : undefined);
  const fitting = sources.filter((source) => !('from' in from) || source.kind === from.from);
  const source = fitting.find(({ id }) => id === chosen) ?? fitting[0];
  // Those that fit what it is made for come first.
  const kind = sources.find(({ id }) => id === wanted)?.kind;
  const fits = (one: (typeof SHIPPED)[number]) => one.from === kind;
  const offered = [...SHIPPED.filter(fits), ...SHIPPED.filter((one) => !fits(one)), EMPTY];
  const steps = allSteps(from.make({ source: '', blog: '', language: 'en' }).steps);
  return {
    key,
    setKey,
    setSource,
    setBlog,
    from,
    offered,
    fitting,
    source,
    open,
    blog,
    /** Whether a blog has still to be chosen. */
    needsBlog: steps.some((step) => step.kind === 'publish') && !blog && (blogs.isPending || open.length > 1),
    publishes: steps.some((step) => step.kind === 'publish'),
    looksUp: steps.some((step) => step.kind === 'look up'),
  };
}

function documentOf({ from }: Beginning, source: Source | undefined, blog: Blog | undefined): ProcedureDocument {
  return from.make({
    source: source?.id ?? '',
    blog: blog?.id ?? '',
    language: blog?.language ?? 'en',
    columns: source?.kind === 'sheet' ? sheetColumns(source.brings) : [],
  });
}

/** A pipeline from a shipped procedure, fed by a source that fits it. */
export function NewPipeline({ from: given, source: wanted }: { from: string | null; source: string | null }) {
  const beginning = useBeginning(given, wanted);
  const { source, blog, looksUp, needsBlog, open } = beginning;
  const services = useQuery(read.services()).data?.services;
  const [asked, setAsked] = useState(false);
  const [isUnsourced, setUnsourced] = useState(false);
  const findsNone = looksUp && services !== undefined && !services.some(({ role }) => role === 'look-up');
  const unsourced = findsNone && isUnsourced;
  const go = useNavigate();
  const make = useMutation({
    mutationFn: (name: string) => {
      const document = documentOf(beginning, source, blog);
      return call('POST', '/pipelines', {
        body: { name, document: unsourced ? withoutSources(document) : document },
        answer: MadePipeline,
      });
    },
    onSuccess: ({ id }) => {
      void queryClient.invalidateQueries({ queryKey: ['pipelines'] });
      void go(`/pipelines/${id}`);
    },
  });
  return (
    <div className="flex flex-wrap items-center gap-3">
      <BeginsWith beginning={beginning} />
      <NameForm
        does="Make it"
        busy={make.isPending}
        wrong={make.isError ? inWords(make.error) : null}
        onName={(name) => (needsBlog ? setAsked(true) : make.mutate(name))}
      />
      {asked && !blog && open.length > 1 ? <Trouble>Choose the blog its articles go to.</Trouble> : null}
      {findsNone ? (
        <div className="w-full text-small">
          <p className="text-red">
            No look-up service is connected, so it finds no pages to write from and stops there. Connect one in Settings
            first, begin with another procedure, or have it written without sources.
          </p>
          <Tick label="Write without sources" state={unsourced} onChange={setUnsourced}>
            write without sources: every paragraph is marked ‘rests on nothing’
          </Tick>
        </div>
      ) : null}
    </div>
  );
}

function BeginsWith({ beginning }: { beginning: Beginning }) {
  const { key, setKey, setSource, setBlog, from, offered, fitting, source, open, blog, publishes } = beginning;
  return (
    <span className="text-proc">
      Begin with{' '}
      <ChoiceWord
        label="What the new pipeline begins with"
        value={key}
        options={offered.map((one) => ({ value: one.key, says: one.name, does: one.says }))}
        onChoose={setKey}
      >
        {from.name}
      </ChoiceWord>
      {source ? (
        <>
          , fed by{' '}
          <ChoiceWord
            label="The source that feeds it"
            value={source.id}
            options={fitting.map((one) => ({ value: one.id, says: one.name, does: '' }))}
            onChoose={setSource}
          />
        </>
      ) : (
        ', fed by nothing yet'
      )}
      {publishes && open.length > 1 ? (
        <>
          , going to{' '}
          <ChoiceWord
            label="The blog it goes to"
            wrong={blog ? null : 'choose one'}
            value={blog?.id ?? ''}
            options={open.map((one) => ({ value: one.id, says: one.name, does: `in ${languageName(one.language)}` }))}
            onChoose={setBlog}
          >
            {blog?.name ?? 'a blog'}
          </ChoiceWord>
        </>
      ) : null}
    </span>
  );
}
