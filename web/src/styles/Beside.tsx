import { type HouseStyleWhole, StyleComparison } from '@grivo/contract';
import { FIGURES } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { Empty, Head, Loading, Mark, Ruler, Trouble } from '../design/index.ts';
import { ArticleChoice } from '../parts/ArticleChoice.tsx';

/** An article beside the style, point by point. */
export function Beside({ style }: { style: HouseStyleWhole }) {
  const [search, setSearch] = useSearchParams();
  const article = search.get('article');
  const compared = useQuery({
    queryKey: ['style', style.id, 'beside', article, style.version],
    queryFn: () => call('GET', `/styles/${style.id}/beside?article=${article}`, { answer: StyleComparison }),
    enabled: article !== null,
  });
  return (
    <div className="-mx-8 border-t border-ink px-8 pb-8">
      <p className="py-3 text-proc">
        Beside this style:{' '}
        <ArticleChoice
          label="The article"
          value={article}
          onChoose={(next) => setSearch({ show: 'beside', article: next })}
        >
          {compared.data?.article.title ?? 'choose an article'}
        </ArticleChoice>
      </p>
      {article === null ? (
        <Empty>Choose an article, and see where it is in the style and where it is not.</Empty>
      ) : null}
      {compared.isLoading ? <Loading /> : null}
      {compared.isError ? <Trouble>{inWords(compared.error)}</Trouble> : null}
      {compared.data ? <Points it={compared.data} /> : null}
    </div>
  );
}

function Points({ it }: { it: StyleComparison }) {
  const held = it.figures.filter(({ within }) => within !== null);
  const well = held.filter(({ within }) => within).length;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-10 max-[1100px]:grid-cols-1">
      <section>
        <Head
          title="Figures"
          right={held.length === 0 ? 'held to nothing yet' : `${well} of ${held.length} in range`}
        />
        {it.figures.map((one) => (
          <FigureBeside key={one.name} one={one} article={it.article.id} />
        ))}
      </section>
      <section>
        <Head title="Words" right={it.unwanted.length === 0 ? 'as the house says' : ''} />
        {it.unwanted.length === 0 ? <p className="pt-2">It says nothing the house does not say.</p> : null}
        <ul>
          {it.unwanted.map(({ block, words, instead }, i) => (
            <li key={`${i} ${words}`} className="flex items-baseline gap-3 border-b border-rule-soft py-1">
              <s className="text-red">{words}</s>
              <span>
                {instead === null ? (
                  'is never said'
                ) : (
                  <>
                    is said as <b>{instead}</b>
                  </>
                )}
              </span>
              <Place article={it.article.id} block={block} />
            </li>
          ))}
        </ul>
        <div className="pt-4" />
        <Head title="Person" />
        <p className={`pt-2 ${it.person ? 'text-red' : ''}`}>{it.person ?? 'As the house speaks.'}</p>
        <div className="pt-4" />
        <Head title="The hand" />
        {it.hand ? (
          <HandSays hand={it.hand} />
        ) : (
          <p className="pt-2 text-ink-2">
            Told from three texts of its language on: words such as “but”, “which”, “until” and the signs between them
            give a hand away.
          </p>
        )}
        <p className="pt-5">
          <Link className="act brackets" to={`/articles/${it.article.id}`}>
            Open the article
          </Link>
        </p>
      </section>
    </div>
  );
}

function Place({ article, block }: { article: string; block: string | null }) {
  return (
    <Link
      className="act quiet brackets ml-auto text-small"
      to={`/articles/${article}${block ? `#block-${block}` : ''}`}
    >
      {block === null ? 'in the title' : 'where it stands'}
    </Link>
  );
}

function FigureBeside({ one, article }: { one: StyleComparison['figures'][number]; article: string }) {
  const { says, unit, scale } = FIGURES[one.name];
  return (
    <div className="border-b border-rule-soft py-1.5">
      <p className={`flex items-baseline justify-between gap-3 ${one.within === false ? 'text-red' : ''}`}>
        {says}
        <span className="fig">
          {one.value} {unit}
          <span className="pl-2 text-ink-3">{one.range ? `${one.range.from}–${one.range.to}` : 'any'}</span>
        </span>
      </p>
      <Ruler
        label={`${says}: ${one.value} ${unit}`}
        value={one.value}
        from={0}
        to={Math.max(scale, one.value, one.range?.to ?? 0)}
        least={one.range?.from ?? null}
        most={one.range?.to ?? null}
      />
      {one.mend ? (
        <p className="flex gap-3 text-small text-ink-2">
          {one.mend}
          {one.place ? <Place article={article} block={one.place} /> : null}
        </p>
      ) : null}
    </div>
  );
}

function HandSays({ hand }: { hand: NonNullable<StyleComparison['hand']> }) {
  return (
    <p className="flex items-baseline gap-2 pt-2">
      <Mark state={hand.alike ? 'done' : 'wait'} />
      <span>
        {hand.alike ? 'It reads as if of the hand of the texts' : 'It reads as if of another hand than the texts'}: it
        lies <span className="fig">{hand.distance}</span> from them, while they lie{' '}
        <span className="fig">
          {hand.nearest}–{hand.farthest}
        </span>{' '}
        from one another.
      </span>
    </p>
  );
}
