import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { Loading, Trouble } from '../design/index.ts';
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
  switch (source.data.settings.kind) {
    case 'keywords':
      return <KeywordList key={id} source={source.data} settings={source.data.settings} />;
    case 'sheet':
      return <SheetSource key={id} source={source.data} settings={source.data.settings} />;
    case 'videos':
      return <VideoSource key={id} source={source.data} settings={source.data.settings} />;
    case 'feed':
      return <FeedSource key={id} source={source.data} settings={source.data.settings} />;
    case 'documents':
      return <DocumentSource key={id} source={source.data} settings={source.data.settings} />;
    case 'catalogue':
      return <CatalogueSource key={id} source={source.data} settings={source.data.settings} />;
    case 'publications':
      return <PublicationSource key={id} source={source.data} settings={source.data.settings} />;
    case 'recordings':
      return <RecordingSource key={id} source={source.data} settings={source.data.settings} />;
    case 'hook':
      return <HookSource key={id} source={source.data} settings={source.data.settings} />;
    case 'requests':
      return <RequestSource key={id} source={source.data} settings={source.data.settings} />;
  }
}
