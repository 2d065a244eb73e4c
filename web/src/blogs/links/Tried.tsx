import { RulesTried } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords, Refused } from '../../api/call.ts';
import { Empty, Head, Loading, Trouble } from '../../design/index.ts';
import { ArticleChoice } from '../../parts/ArticleChoice.tsx';
import { plural } from '../../words/figures.ts';

const MOST_TEXTS = 12;

/** What the rules would make of an article, beside its text; the article stays as it is. */
export function Tried({ blog, name }: { blog: string; name: string }) {
  const [article, setArticle] = useState<string | null>(null);
  const result = useQuery({
    queryKey: ['links', blog, 'try', article],
    queryFn: () =>
      call('GET', `/blogs/${blog}/links/try${article === null ? '' : `?article=${article}`}`, { answer: RulesTried }),
    retry: false,
  });
  const none = result.isError && result.error instanceof Refused && result.error.problem.status === 404;
  const data = result.data;
  return (
    <section className="pt-5">
      <Head
        title="Tried on"
        right={data ? `${plural(data.placed, 'link')} placed, ${plural(data.alone, 'word')} left alone` : ''}
      />
      {none ? <Empty>Nothing is on {name} yet to try the rules on.</Empty> : null}
      {result.isError && !none ? <Trouble>{inWords(result.error)}</Trouble> : null}
      {result.isPending ? <Loading rows={3} /> : null}
      {data ? (
        <>
          <p className="pt-2">
            <ArticleChoice label="Article to try the rules on" value={data.article} blog={blog} onChoose={setArticle}>
              {data.title}
            </ArticleChoice>
          </p>
          {data.placed + data.alone === 0 ? <Empty>It says none of the words that have a rule.</Empty> : null}
          <ul>
            {data.texts
              .filter(({ notes }) => notes.length > 0)
              .slice(0, MOST_TEXTS)
              .map((text, i) => (
                <TriedText key={`${i} ${text.notes.length}`} text={text} />
              ))}
          </ul>
        </>
      ) : null}
    </section>
  );
}

function TriedText({ text: { kind, parts, notes } }: { text: RulesTried['texts'][number] }) {
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_200px] gap-6 border-b border-rule-soft py-2">
      <p
        className={`font-read leading-6 ${kind === 'heading' ? 'font-semibold' : kind === 'quotation' ? 'italic' : ''}`}
      >
        {parts.map((part, i) =>
          part.placed ? (
            <u key={`${i} ${part.text}`} className="decoration-2 underline-offset-4">
              {part.text}
            </u>
          ) : (
            <span key={`${i} ${part.text.slice(0, 20)}`}>{part.text}</span>
          ),
        )}
      </p>
      <ul className="border-l border-rule pl-3 text-small leading-5">
        {notes.map(({ words, says, placed }, i) => (
          <li key={`${i} ${words}`} className={placed ? '' : 'text-ink-3'}>
            {placed ? <strong className="font-semibold">{words}</strong> : words} {says}
          </li>
        ))}
      </ul>
    </li>
  );
}
