import { MadePipeline } from '@grivo/contract';
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
import { Link, useNavigate, useSearchParams } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, ChoiceEditor, Empty, Loading, Mark, NameForm, Tick, Trouble, Word } from '../design/index.ts';
import { useArchived } from '../keeping/useArchived.tsx';
import { useViewKeys } from '../shell/keys.ts';
import { useNow } from '../shell/useNow.ts';
import { amount, count } from '../words/figures.ts';
import { moment } from '../words/time.ts';
import { Routines } from './Routines.tsx';

/** Every pipeline: on or off, next look, last article, how its briefs stand, what it brought this month. */
export default function Pipelines() {
  const pipelines = useQuery(read.pipelines());
  const slots = useQuery(read.slots(null, 7));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const [search, setSearch] = useSearchParams();
  const making = search.has('new');
  const [at, setAt] = useState(-1);
  const go = useNavigate();
  const { rows, words: archived } = useArchived(pipelines.data?.pipelines);
  const put = (n: number) => setAt(Math.max(0, Math.min((rows?.length ?? 1) - 1, n)));
  const chosen = rows?.[at];
  useViewKeys({
    j: () => put(at + 1),
    k: () => put(at - 1),
    Enter: chosen ? () => void go(`/pipelines/${chosen.id}`) : null,
    n: () => setSearch({ new: '' }, { replace: true }),
  });
  return (
    <>
      <div className="flex h-[68px] items-center gap-4">
        <h1 className="text-title font-semibold tracking-[-0.018em]">Pipelines</h1>
        <span className="text-ink-3">
          {rows ? `${count(rows.length)} in all, ${rows.filter((row) => row.isOn).length} on` : ''}
        </span>
        {archived}
        <Button className="ml-auto" onClick={() => setSearch(making ? {} : { new: '' })}>
          {making ? 'Not now' : 'Make a pipeline'}
        </Button>
      </div>
      {making ? <NewPipeline from={search.get('from')} source={search.get('source')} /> : null}
      <div className="-mx-8 border-t border-ink px-8">
        {pipelines.isPending ? <Loading /> : null}
        {pipelines.isError ? <Trouble>{inWords(pipelines.error)}</Trouble> : null}
        {rows?.length === 0 && !making ? (
          <Empty
            next={
              <Button look="word" onClick={() => setSearch({ new: '' })}>
                Make the first
              </Button>
            }
          >
            There is no pipeline yet.
          </Empty>
        ) : null}
        {rows && rows.length > 0 ? (
          <table className="w-full table-fixed">
            <thead>
              <tr className="h-8 border-b border-rule text-left text-small text-ink-3">
                <th className="w-[28%] font-normal max-[1100px]:w-[21%]">Pipeline</th>
                <th className="w-[44px] font-normal">It is</th>
                <th className="w-[132px] font-normal">Looks next</th>
                <th className="font-normal">Last out</th>
                <th className="w-[60px] text-right font-normal">waiting</th>
                <th className="w-[60px] text-right font-normal">in work</th>
                <th className="w-[52px] text-right font-normal">held</th>
                <th className="w-[60px] text-right font-normal">ready</th>
                <th className="w-[64px] text-right font-normal">stopped</th>
                <th className="w-[84px] text-right font-normal">this month</th>
                <th className="w-[64px] text-right font-normal">€ each</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row, i) => (
                <tr
                  key={row.id}
                  aria-selected={i === at}
                  className={`row h-12 align-middle ${i === at ? 'brackets bracketed picked' : ''}`}
                >
                  <td className="pr-4">
                    <Link to={`/pipelines/${row.id}`} className="brackets block truncate text-proc font-medium">
                      {row.name}
                    </Link>
                    <span className="block truncate text-small text-ink-3">{row.kinds.join(', ')}</span>
                  </td>
                  <td>{row.isOn ? 'on' : <span className="text-ink-3">off</span>}</td>
                  <td className="fig">
                    {row.nextLook === null ? <span className="text-ink-3">when asked</span> : moment(row.nextLook, now)}
                  </td>
                  <td className="pr-4">
                    {row.lastOut ? (
                      <>
                        <Link
                          to={`/articles/${row.lastOut.article}`}
                          className="work brackets block truncate leading-6"
                        >
                          {row.lastOut.title}
                        </Link>
                        <span className="fig block truncate text-ink-3">{moment(row.lastOut.at, now)}</span>
                      </>
                    ) : (
                      <span className="text-ink-3">nothing yet</span>
                    )}
                  </td>
                  <Count n={row.counts.waiting} />
                  <Count n={row.counts['in work']} />
                  <td className={`fig text-right ${row.counts.held === 0 ? 'text-ink-3' : ''}`}>
                    {row.counts.held > 0 ? <Mark state="wait" /> : null} {count(row.counts.held)}
                  </td>
                  <Count n={row.counts.ready} />
                  <td className="fig text-right">
                    {row.counts.stopped > 0 ? (
                      <span className="text-red">
                        <Mark state="stop" /> {count(row.counts.stopped)}
                      </span>
                    ) : (
                      <span className="text-ink-3">0</span>
                    )}
                  </td>
                  <Count n={row.outThisMonth} />
                  <td className="fig text-right">{row.microsEach === null ? '' : amount(row.microsEach)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        ) : null}
        {rows ? <Routines /> : null}
      </div>
    </>
  );
}

function Count({ n }: { n: number }) {
  return <td className={`fig text-right ${n === 0 ? 'text-ink-3' : ''}`}>{count(n)}</td>;
}

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

/** A pipeline from a shipped procedure, fed by a source that fits it. */
function NewPipeline({ from: given, source: wanted }: { from: string | null; source: string | null }) {
  const [key, setKey] = useState(SHIPPED.some((one) => one.key === given) ? given! : 'guides');
  const [chosen, setChosen] = useState(wanted);
  const [to, setTo] = useState<string | null>(null);
  const from = key === EMPTY.key ? EMPTY : shipped(key);
  const blogs = useQuery(read.blogs());
  const sources = useQuery(read.sources());
  const services = useQuery(read.services()).data?.services;
  const open = (blogs.data?.blogs ?? []).filter(({ archived }) => !archived);
  const blog = open.find(({ id }) => id === to) ?? (open.length === 1 ? open[0] : undefined);
  const fitting = (sources.data?.sources ?? []).filter((source) => !('from' in from) || source.kind === from.from);
  const source = fitting.find(({ id }) => id === chosen) ?? fitting[0];
  // Those that fit what it is made for come first.
  const kind = sources.data?.sources.find(({ id }) => id === wanted)?.kind;
  const fits = (one: (typeof SHIPPED)[number]) => one.from === kind;
  const offered = [...SHIPPED.filter(fits), ...SHIPPED.filter((one) => !fits(one)), EMPTY];
  const [asked, setAsked] = useState(false);
  const [isUnsourced, setUnsourced] = useState(false);
  const steps = allSteps(from.make({ source: '', blog: '', language: 'en' }).steps);
  const publishes = steps.some((step) => step.kind === 'publish');
  const looksUp = steps.some((step) => step.kind === 'look up');
  const findsNone = looksUp && services !== undefined && !services.some(({ role }) => role === 'look-up');
  const unsourced = findsNone && isUnsourced;
  const go = useNavigate();
  const make = useMutation({
    mutationFn: (name: string) => {
      return call('POST', '/pipelines', {
        body: {
          name,
          document: (unsourced ? withoutSources : (made: ProcedureDocument) => made)(
            from.make({
              source: source?.id ?? '',
              blog: blog?.id ?? '',
              language: blog?.language ?? 'en',
              columns: source?.kind === 'sheet' ? sheetColumns(source.brings) : [],
            }),
          ),
        },
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
      <span className="text-proc">
        Begin with{' '}
        <Word
          label="What the new pipeline begins with"
          editor={(close) => (
            <ChoiceEditor
              value={key}
              options={offered.map((one) => ({ value: one.key, says: one.name, does: one.says }))}
              onChoose={(chosen) => {
                setKey(chosen);
                close();
              }}
            />
          )}
        >
          {from.name}
        </Word>
        {source ? (
          <>
            , fed by{' '}
            <Word
              label="The source that feeds it"
              editor={(close) => (
                <ChoiceEditor
                  value={source.id}
                  options={fitting.map((one) => ({ value: one.id, says: one.name, does: '' }))}
                  onChoose={(id) => {
                    setChosen(id);
                    close();
                  }}
                />
              )}
            >
              {source.name}
            </Word>
          </>
        ) : (
          ', fed by nothing yet'
        )}
        {publishes && open.length > 1 ? (
          <>
            , going to{' '}
            <Word
              label="The blog it goes to"
              wrong={blog ? null : 'choose one'}
              editor={(close) => (
                <ChoiceEditor
                  value={blog?.id ?? ''}
                  options={open.map((one) => ({
                    value: one.id,
                    says: one.name,
                    does: `in ${languageName(one.language)}`,
                  }))}
                  onChoose={(id) => {
                    setTo(id);
                    close();
                  }}
                />
              )}
            >
              {blog?.name ?? 'a blog'}
            </Word>
          </>
        ) : null}
      </span>
      <NameForm
        does="Make it"
        busy={make.isPending}
        wrong={make.isError ? inWords(make.error) : null}
        onName={(name) =>
          publishes && !blog && (blogs.isPending || open.length > 1) ? setAsked(true) : make.mutate(name)
        }
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
