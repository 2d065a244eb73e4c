import type { SourceWhole } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { Loading, Trouble } from '../design/index.ts';
import { count } from '../words/figures.ts';
import { KeywordList } from './keywords/KeywordList.tsx';
import { CatalogueSource } from './kinds/CatalogueSource.tsx';
import { DocumentSource } from './kinds/DocumentSource.tsx';
import { FeedSource } from './kinds/FeedSource.tsx';
import { HookSource } from './kinds/HookSource.tsx';
import { PublicationSource } from './kinds/PublicationSource.tsx';
import { RecordingSource } from './kinds/RecordingSource.tsx';
import { RequestSource } from './kinds/RequestSource.tsx';
import { SheetSource } from './SheetSource.tsx';
import { VideoSource } from './VideoSource.tsx';

/** One source, shown as its kind is. */
export default function SourcePage() {
  const { id = '' } = useParams();
  const source = useQuery(read.source(id));
  if (source.isPending)
    return (
      <div className="pt-8">
        <Loading rows={10} />
      </div>
    );
  if (!source.data) return <Trouble>{inWords(source.error)}</Trouble>;
  return (
    <>
      <Beyond id={id} />
      <AsItsKind key={id} source={source.data} />
    </>
  );
}

/** A list that goes on beyond what is shown says so. */
function Beyond({ id }: { id: string }) {
  const items = useQuery(read.items(id)).data;
  if (!items || items.more === 0) return null;
  return (
    <p className="pt-3 text-small text-ink-2" role="status">
      The first {count(items.items.length)} are shown; {count(items.more)} more are in it. Pipelines take from all of
      them.
    </p>
  );
}

function AsItsKind({ source }: { source: SourceWhole }) {
  switch (source.settings.kind) {
    case 'keywords':
      return <KeywordList source={source} settings={source.settings} />;
    case 'sheet':
      return <SheetSource source={source} settings={source.settings} />;
    case 'videos':
      return <VideoSource source={source} settings={source.settings} />;
    case 'feed':
      return <FeedSource source={source} settings={source.settings} />;
    case 'documents':
      return <DocumentSource source={source} settings={source.settings} />;
    case 'catalogue':
      return <CatalogueSource source={source} settings={source.settings} />;
    case 'publications':
      return <PublicationSource source={source} settings={source.settings} />;
    case 'recordings':
      return <RecordingSource source={source} settings={source.settings} />;
    case 'hook':
      return <HookSource source={source} settings={source.settings} />;
    case 'requests':
      return <RequestSource source={source} settings={source.settings} />;
  }
}
