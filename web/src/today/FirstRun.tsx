import { type CleanedPaste, Made, MadePipeline, type TestLine, type Today } from '@grivo/contract';
import { shipped } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { useNavigate } from 'react-router';
import type { z } from 'zod';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { ConnectBlog } from '../blogs/connect/ConnectBlog.tsx';
import { TestLines } from '../blogs/TestLines.tsx';
import { Button, Mark, Trouble } from '../design/index.ts';
import { Became, Paste } from '../intake/Paste.tsx';
import { ConnectService } from '../settings/ConnectService.tsx';
import { plural } from '../words/figures.ts';

/** Four things in this order; each shows what comes of it. Only what exists is offered. */
export function FirstRun({ begun }: { begun: Today['begun'] }) {
  const done = [begun.blogs > 0, begun.writers > 0, begun.sources > 0, begun.pipelines > 0];
  const next = done.indexOf(false);
  const stands = (n: number) => ({ n, done: done[n - 1]!, open: next === n - 1 });
  return (
    <div className="flex flex-1 flex-col">
      <div className="pt-6 pb-7">
        <h1 className="text-lead font-medium tracking-[-0.018em]">
          Grivo has articles written from sources you choose, and publishes them on your blog when you say so.
        </h1>
        <p className="pt-1 text-ink-2">
          Four things, in this order, a few minutes each. Everything can be changed later. Nothing is written, paid for
          or published before you say so.
        </p>
      </div>
      <div className="relative -mx-8 flex-1 border-t border-ink">
        <div aria-hidden className="absolute inset-y-0 right-0 w-[44.0625%] border-l border-rule-strong bg-sheet" />
        <div className="relative grid grid-cols-[minmax(0,716fr)_minmax(0,564fr)]">
          <p className="ml-8 flex h-8 items-center gap-2 text-small text-ink-3">
            <strong className="text-base font-semibold text-ink">To begin</strong> 4 steps,{' '}
            {next === -1 ? 'all done' : `${done.filter(Boolean).length} done`}
          </p>
          <p className="mr-8 flex h-8 items-center pl-5 font-semibold">What happens</p>
        </div>
        <BlogStep {...stands(1)} was={plural(begun.blogs, 'blog')} />
        <ServiceStep
          {...stands(2)}
          was={`${plural(begun.writers, 'writer')}, ${plural(begun.illustrators, 'illustrator')}`}
        />
        <ListStep {...stands(3)} was={plural(begun.sources, 'list')} />
        <PipelineStep {...stands(4)} was={plural(begun.pipelines, 'pipeline')} />
        {next === -1 ? <AllDone /> : null}
      </div>
    </div>
  );
}

interface Stands {
  n: number;
  done: boolean;
  open: boolean;
  /** What there is of it. */
  was: string;
}

function BlogStep(stands: Stands) {
  const [lines, setLines] = useState<TestLine[] | null>(null);
  return (
    <Step
      {...stands}
      says="Connect a blog"
      comes={
        lines ? (
          <TestLines lines={lines} />
        ) : (
          'A harmless draft is put up, read back and taken down. You see what was tried, what came back, and what to change if it does not work.'
        )
      }
    >
      <ConnectBlog autoFocus onDone={(_id, tested) => setLines(tested)} />
    </Step>
  );
}

function ServiceStep(stands: Stands) {
  const [lines, setLines] = useState<TestLine[] | null>(null);
  return (
    <Step
      {...stands}
      says="Connect a writer, an illustrator and a look-up"
      comes={
        lines ? (
          <TestLines lines={lines} />
        ) : (
          'You see the price of a thousand tokens and of a picture before anything is made.'
        )
      }
    >
      <ConnectService onDone={setLines} />
    </Step>
  );
}

function ListStep(stands: Stands) {
  const [cleaned, setCleaned] = useState<(z.infer<typeof CleanedPaste> & { source: string }) | null>(null);
  return (
    <Step
      {...stands}
      says="Give subjects: a list of keywords"
      comes={
        cleaned ? (
          <Became {...cleaned} />
        ) : (
          'Everything that would come in, cleaned, with the reason for what is left out.'
        )
      }
    >
      <Paste
        autoFocus
        into={async () => (await call('POST', '/sources', { body: { name: 'First keywords' }, answer: Made })).id}
        onAdded={setCleaned}
      />
    </Step>
  );
}

function PipelineStep(stands: Stands) {
  const go = useNavigate();
  const begin = useMutation({
    mutationFn: async () => {
      // What was made a moment ago may not have been read yet.
      const [{ blogs }, { sources }] = await Promise.all([
        queryClient.fetchQuery({ ...read.blogs(), staleTime: 0 }),
        queryClient.fetchQuery({ ...read.sources(), staleTime: 0 }),
      ]);
      const [blog] = blogs;
      const fed = { source: sources[0]?.id ?? '', blog: blog?.id ?? '', language: blog?.language ?? 'en' };
      return call('POST', '/pipelines', {
        body: { name: 'Keywords to guides', document: shipped('guides').make(fed) },
        answer: MadePipeline,
      });
    },
    onSuccess: ({ id }) => {
      for (const key of ['pipelines', 'today']) void queryClient.invalidateQueries({ queryKey: [key] });
      void go(`/pipelines/${id}`);
    },
  });
  return (
    <Step
      {...stands}
      says="Start from ‘Keywords to guides’, a procedure that ships with Grivo, and try it on one"
      comes="Nine sentences you can change word by word. A trial shows what each makes of one subject, and publishes nothing."
    >
      <Button look="solid" busy={begin.isPending ? 'Making it' : null} onClick={() => begin.mutate()}>
        Make the pipeline
      </Button>
      {begin.isError ? <Trouble>{inWords(begin.error)}</Trouble> : null}
    </Step>
  );
}

function AllDone() {
  const pipelines = useQuery(read.pipelines());
  const go = useNavigate();
  return (
    <p className="relative ml-8 pt-4">
      Everything is in place.{' '}
      <Button look="word" onClick={() => void go(`/pipelines/${pipelines.data?.pipelines[0]?.id ?? ''}`)}>
        Try the pipeline and take the first items
      </Button>
    </p>
  );
}

function Step({
  n,
  says,
  done,
  open,
  was,
  comes,
  children,
}: Stands & { says: string; comes: ReactNode; children: ReactNode }) {
  return (
    <section className="relative grid grid-cols-[minmax(0,716fr)_minmax(0,564fr)]">
      {open ? <span aria-hidden className="absolute top-3 bottom-3 left-4 w-1 bg-marker" /> : null}
      <div className={`ml-8 grid grid-cols-[28px_1fr] border-t border-rule-soft py-4 pr-8 ${open ? '' : 'text-ink-2'}`}>
        <span className={`fig leading-6 ${open ? 'font-semibold' : 'text-ink-3'}`}>{n}</span>
        <div>
          <h2 className="text-proc">
            {says}
            {done ? (
              <span className="pl-3 text-small text-ink-3">
                <Mark state="done" /> {was}
              </span>
            ) : null}
          </h2>
          {open ? <div className="pt-3">{children}</div> : null}
        </div>
      </div>
      <div className="mr-8 grid grid-cols-[24px_1fr] border-t border-rule-soft py-4 pl-5 text-small text-ink-2">
        <Mark state={done ? 'done' : 'plan'} />
        <div>{comes}</div>
      </div>
    </section>
  );
}
