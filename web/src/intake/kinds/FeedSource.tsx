import type { FeedSettings, SourceWhole } from '@grivo/contract';
import { useState } from 'react';
import { inWords } from '../../api/call.ts';
import { Button, ChoiceWord, Head, NumberEditor, Trouble, ValuesEditor, Word } from '../../design/index.ts';
import { plural } from '../../words/figures.ts';
import { ItemsSource } from '../items/ItemsSource.tsx';
import { ExcludeWord, StartWord } from '../LookWords.tsx';
import { useChange } from '../useSource.ts';
import { FeedFinder } from './FeedFinder.tsx';

/** Feeds read as one: their newest entries, what of them is left out, and how redirects are unwrapped. */
export function FeedSource({ source, settings }: { source: SourceWhole; settings: FeedSettings }) {
  const change = useChange(source);
  const put = (next: Partial<FeedSettings>) => change.mutate({ ...settings, ...next });
  const [adding, setAdding] = useState(settings.feeds.length === 0);
  return (
    <ItemsSource
      source={source}
      says={plural(settings.feeds.length, 'feed')}
      one="entry"
      actions={
        <>
          <a className="act quiet brackets text-small" href={`/api/sources/${source.id}/opml`} download>
            As a list (OPML)
          </a>
          <Button look="quiet" className="text-small" onClick={() => setAdding(!adding)}>
            {adding ? 'Not now' : 'Add a feed'}
          </Button>
        </>
      }
      sentence={<Sentence settings={settings} put={put} />}
      above={
        <>
          {change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
          {adding ? (
            <div className="-mx-8 border-t border-rule px-8 py-3">
              <FeedFinder
                says="Add it"
                busy={change.isPending}
                onChoose={(feeds) => {
                  const there = new Set(settings.feeds.map(({ address }) => address));
                  put({ feeds: [...settings.feeds, ...feeds.filter(({ address }) => !there.has(address))] });
                  setAdding(false);
                }}
              />
            </div>
          ) : null}
        </>
      }
      aside={<Feeds feeds={settings.feeds} onChange={(feeds) => put({ feeds })} />}
      empty="No entries yet. Look at it once, and they stand here."
    />
  );
}

function Feeds({
  feeds,
  onChange,
}: {
  feeds: FeedSettings['feeds'];
  onChange: (feeds: FeedSettings['feeds']) => void;
}) {
  return (
    <section aria-label="Feeds" className="pb-4">
      <Head title="Feeds" right={String(feeds.length)} />
      <ul className="text-small">
        {feeds.map((feed) => (
          <li key={feed.address} className="row flex items-baseline gap-2 border-b border-rule-soft py-1">
            <span className="min-w-0 flex-1">
              <span className="block truncate">{feed.name || feed.address}</span>
              <span className="block truncate text-ink-3">{feed.address.replace(/^https?:\/\//, '')}</span>
            </span>
            <Button look="quiet" onClick={() => onChange(feeds.filter((one) => one !== feed))}>
              Take out
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Rules as lines: where redirect addresses begin, and the parameter that holds the true one. */
function rulesIn(lines: readonly string[]): FeedSettings['unwrap'] {
  return lines.flatMap((line) => {
    const [begins = '', parameter = ''] = line.split(/\s+/);
    return /^https?:\/\/\S+$/.test(begins) && /^[^&=?#\s]+$/.test(parameter) ? [{ begins, parameter }] : [];
  });
}

function Sentence({ settings, put }: { settings: FeedSettings; put: (next: Partial<FeedSettings>) => void }) {
  return (
    <p>
      Start from <StartWord start={settings.startFrom} onChange={(startFrom) => put({ startFrom })} />; leave out
      entries with <ExcludeWord exclude={settings.exclude} onChange={(exclude) => put({ exclude })} /> in their title
      and those with fewer than{' '}
      <Word
        label="Shortest"
        editor={() => (
          <NumberEditor
            label="Fewest words in the feed"
            value={settings.shortest}
            least={0}
            most={2_000}
            unit="words in the feed"
            onChange={(shortest) => shortest !== null && put({ shortest })}
          />
        )}
      >
        {plural(settings.shortest, 'word')}
      </Word>{' '}
      in the feed; unwrap redirects by{' '}
      <Word
        label="Redirects"
        editor={() => (
          <>
            <ValuesEditor
              label="Rules: where a redirect begins, a space, the parameter"
              value={settings.unwrap.map(({ begins, parameter }) => `${begins} ${parameter}`)}
              most={50}
              onChange={(lines) => put({ unwrap: rulesIn(lines) })}
            />
            <p className="pt-1 text-small text-ink-3">
              A line each, as ‘https://go.example/ to’. Those with url=, to=, target= and the like are known.
            </p>
          </>
        )}
      >
        {settings.unwrap.length === 0 ? 'what is usual' : plural(settings.unwrap.length, 'rule')}
      </Word>
      ;{' '}
      <ChoiceWord
        label="Pushed"
        value={String(settings.push)}
        options={[
          {
            value: 'true',
            says: 'let hubs push what is new',
            does: 'it comes in at once, where a feed has a hub',
          },
          { value: 'false', says: 'only look', does: 'as often as its pipelines look' },
        ]}
        onChoose={(value) => put({ push: value === 'true' })}
      >
        {settings.push ? 'let hubs push what is new' : 'only look'}
      </ChoiceWord>
      .
    </p>
  );
}
