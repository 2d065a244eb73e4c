import { type HouseStyleWhole, Made } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { call, inWords, Refused } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, Empty, Loading, Mark, Trouble } from '../design/index.ts';
import { KeepMenu } from '../keeping/KeepMenu.tsx';
import { count, plural } from '../words/figures.ts';
import { AsFigures } from './AsFigures.tsx';
import { Beside } from './Beside.tsx';
import { Cards } from './cards/Cards.tsx';
import { Facts, Values } from './Facts.tsx';
import { HouseWords } from './HouseWords.tsx';
import { InWords } from './InWords.tsx';
import { Links, Pictures } from './Rules.tsx';
import { Replacements } from './replace/Replacements.tsx';
import { Sample } from './Sample.tsx';
import { Standing } from './Standing.tsx';
import { usersIn } from './Styles.tsx';
import { StyleVersionList } from './StyleVersionList.tsx';
import { Texts } from './Texts.tsx';
import { UsedBy } from './UsedBy.tsx';
import { useStyleWords } from './useStyle.ts';
import { Wording } from './Wording.tsx';

const VIEWS = ['voice', 'replacements', 'cards', 'versions', 'texts', 'beside'] as const;
type View = (typeof VIEWS)[number];

/** A house style: how it sounds, in figures and in words, what stands in every article, and who keeps to it. */
export default function StylePage() {
  const { id = '' } = useParams();
  const style = useQuery(read.style(id));
  if (style.isPending)
    return (
      <div className="pt-8">
        <Loading rows={9} />
      </div>
    );
  if (style.isError)
    return style.error instanceof Refused && style.error.problem.status === 404 ? (
      <Empty
        next={
          <Link className="act brackets" to="/styles">
            All house styles
          </Link>
        }
      >
        There is no such house style.
      </Empty>
    ) : (
      <Trouble>{inWords(style.error)}</Trouble>
    );
  return <Whole style={style.data} />;
}

function Whole({ style }: { style: HouseStyleWhole }) {
  const [search, setSearch] = useSearchParams();
  const asked = search.get('show');
  const view: View = VIEWS.find((one) => one === asked) ?? 'voice';
  const show = (next: View) => setSearch(next === 'voice' ? {} : { show: next });
  const edit = useStyleWords(style);
  return (
    <>
      <StyleHead style={style} view={view} show={show} />
      {edit.error ? <Trouble>{inWords(edit.error)}</Trouble> : null}
      {view === 'replacements' ? <Replacements style={style} edit={edit} /> : null}
      {view === 'cards' ? <Cards style={style} edit={edit} /> : null}
      {view === 'versions' ? <StyleVersionList style={style} /> : null}
      {view === 'texts' ? <Texts style={style} /> : null}
      {view === 'beside' ? <Beside style={style} /> : null}
      {view === 'voice' ? (
        <div className="-mx-8 grid flex-1 grid-cols-[minmax(0,369fr)_minmax(0,495fr)_minmax(0,416fr)] border-t border-ink max-[1100px]:grid-cols-1">
          <section className="px-8 pb-8">
            <AsFigures style={style} edit={edit} />
          </section>
          <section className="border-x border-rule bg-sheet px-6 pb-8 max-[1100px]:border-x-0 max-[1100px]:px-8">
            <InWords edit={edit} />
            <Sample style={style} />
            <Standing edit={edit} />
          </section>
          <section className="px-6 pb-8 max-[1100px]:px-8">
            <HouseWords edit={edit} />
            <Facts edit={edit} />
            <Links edit={edit} />
            <Pictures edit={edit} />
            <Wording edit={edit} />
            <Values edit={edit} />
            <UsedBy style={style} />
          </section>
        </div>
      ) : null}
    </>
  );
}

const TABS: Record<Exclude<View, 'texts' | 'beside'>, string> = {
  voice: 'Voice',
  replacements: 'Replacements',
  cards: 'Cards',
  versions: 'Versions',
};

function StyleHead({ style, view, show }: { style: HouseStyleWhole; view: View; show: (view: View) => void }) {
  const tab = (one: View, says: string) => (
    <button
      key={one}
      type="button"
      aria-pressed={view === one}
      className={`brackets ${view === one ? 'hl hl-full font-semibold' : 'text-ink-2'}`}
      onClick={() => show(one)}
    >
      {says}
    </button>
  );
  const { samples, learnt } = style;
  return (
    <div className="pt-2 pb-2">
      <div className="flex items-center gap-6">
        <h1 className="truncate text-title font-semibold tracking-[-0.018em]">{style.name}</h1>
        <span className="flex gap-5 whitespace-nowrap">
          {tab('voice', TABS.voice)}
          {tab('replacements', TABS.replacements)}
          {tab('cards', TABS.cards)}
          {tab('versions', TABS.versions)}
          {tab('texts', samples.length === 0 ? 'Texts' : `The ${plural(samples.length, 'text')}`)}
        </span>
        <span className="ml-auto flex items-center gap-4">
          <Button look="quiet" onClick={() => show('texts')}>
            {samples.length === 0 ? 'Learn from texts' : 'Learn from more texts'}
          </Button>
          <Button look="line" onClick={() => show('beside')}>
            Compare an article…
          </Button>
        </span>
      </div>
      <div className="flex flex-wrap items-center gap-x-5 text-small leading-5 text-ink-2">
        <span>
          {learnt
            ? `Learnt from ${plural(samples.length, 'text')}, ${count(learnt.words)} words`
            : 'Learnt from no text yet'}
        </span>
        <span className="flex items-center gap-2">
          <Mark state={style.usedBy.length > 0 ? 'done' : 'plan'} /> {usersIn(style.usedBy)}
        </span>
        <span className="ml-auto text-ink-3">version {style.version}</span>
        <Copy style={style} />
        <KeepMenu of="styles" it={style} />
      </div>
    </div>
  );
}

function Copy({ style }: { style: HouseStyleWhole }) {
  const go = useNavigate();
  const copy = useMutation({
    mutationFn: () =>
      call('POST', '/styles', { body: { name: `${style.name.slice(0, 110)}, copy`, from: style.id }, answer: Made }),
    onSuccess: ({ id }) => {
      void queryClient.invalidateQueries({ queryKey: ['styles'] });
      void go(`/styles/${id}`);
    },
  });
  return (
    <>
      <Button look="quiet" busy={copy.isPending ? 'Copying' : null} onClick={() => copy.mutate()}>
        copy it
      </Button>
      {copy.isError ? <Trouble>{inWords(copy.error)}</Trouble> : null}
    </>
  );
}
