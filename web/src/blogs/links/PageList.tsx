import { Pages } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { call, inWords } from '../../api/call.ts';
import { Empty, Field, Head, Trouble } from '../../design/index.ts';
import { count } from '../../words/figures.ts';
import { linksChanged } from './useLinks.ts';

const SHOWN = 8;

/** Pages articles of the blog may link to, found by their titles; any can be barred. */
export function PageList({ blog }: { blog: string }) {
  const [find, setFind] = useState('');
  const sought = useDeferredValue(find);
  const pages = useQuery({
    queryKey: ['links', blog, 'pages', sought],
    queryFn: () => call('GET', `/blogs/${blog}/links/pages?find=${encodeURIComponent(sought)}`, { answer: Pages }),
    placeholderData: (before) => before,
  });
  const bar = useMutation({
    mutationFn: ({ page, barred }: { page: string; barred: boolean }) =>
      call('POST', `/blogs/${blog}/links/pages`, { body: { page, barred } }),
    onSettled: () => linksChanged(blog),
  });
  const shown = pages.data?.pages ?? [];
  return (
    <section className="pt-5">
      <Head title="Pages to link to" right={pages.data ? `${count(pages.data.total)}, read once a day` : ''} />
      <div className="pt-2">
        <Field label="Find a page by its title" value={find} onChange={(event) => setFind(event.target.value)} />
      </div>
      {pages.isError ? <Trouble>{inWords(pages.error)}</Trouble> : null}
      {pages.data && shown.length === 0 ? (
        <Empty>
          {find === ''
            ? 'None is known: the blog has no sitemap, and nothing went out yet.'
            : 'No page has that in its title.'}
        </Empty>
      ) : null}
      <ul>
        {shown.slice(0, SHOWN).map(({ id, title, address, isOurs, isBarred }) => (
          <li key={id} className="flex items-baseline gap-3 border-b border-rule-soft py-1 text-small">
            <a
              href={address}
              target="_blank"
              rel="noreferrer"
              className={`act brackets min-w-0 truncate ${isBarred ? 'line-through' : ''}`}
            >
              {title}
            </a>
            {isOurs ? <span className="whitespace-nowrap text-ink-3">made here</span> : null}
            <button
              type="button"
              className="act quiet brackets ml-auto whitespace-nowrap"
              aria-label={`${isBarred ? 'May be linked again' : 'Never link to it'}: ${title}`}
              onClick={() => bar.mutate({ page: id, barred: !isBarred })}
            >
              {isBarred ? 'May be linked again' : 'Never link to it'}
            </button>
          </li>
        ))}
      </ul>
      {shown.length > SHOWN ? <p className="pt-1 text-small text-ink-3">More are found by their titles.</p> : null}
      {bar.isError ? <Trouble>{inWords(bar.error)}</Trouble> : null}
    </section>
  );
}
