import type { DocumentSettings, SourceWhole } from '@grivo/contract';
import { inWords } from '../../api/call.ts';
import { TextEditor, Trouble, ValuesEditor, Word } from '../../design/index.ts';
import { plural } from '../../words/figures.ts';
import { FileButton } from '../FileButton.tsx';
import { ItemsSource } from '../items/ItemsSource.tsx';
import { ExcludeWord, StartWord } from '../LookWords.tsx';
import { addressesIn } from '../uploads.ts';
import { useGivenFiles } from '../useGivenFiles.ts';
import { useChange } from '../useSource.ts';

export const DOCUMENT_FILES = '.pdf,.docx,.md,.markdown,.html,.htm,.txt';

/** Pages and documents: by address, by sitemap, or uploaded; what each says can be read before it is taken. */
export function DocumentSource({ source, settings }: { source: SourceWhole; settings: DocumentSettings }) {
  const change = useChange(source);
  const put = (next: Partial<DocumentSettings>) => change.mutate({ ...settings, ...next });
  const add = useGivenFiles(source, settings);
  return (
    <ItemsSource
      source={source}
      says="pages and documents"
      one="document"
      actions={<FileButton says="Upload documents" busy="Uploading…" accept={DOCUMENT_FILES} many onFiles={add} />}
      sentence={<Sentence settings={settings} put={put} />}
      above={change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
      empty={
        settings.files.length + settings.addresses.length > 0 || settings.sitemap !== null
          ? 'Nothing has been looked at yet. Look at it once, and its documents stand here; looking takes nothing.'
          : 'No documents yet. Upload some, or give addresses in the sentence above and look at it.'
      }
    />
  );
}

interface SentenceProps {
  settings: DocumentSettings;
  put: (next: Partial<DocumentSettings>) => void;
}

function Sentence({ settings, put }: SentenceProps) {
  const { addresses, files, startFrom, exclude } = settings;
  return (
    <p>
      Read{' '}
      <Word
        label="Addresses"
        editor={() => (
          <ValuesEditor
            label="Addresses of pages and documents, one a line"
            value={addresses}
            most={500}
            onChange={(lines) => put({ addresses: addressesIn(lines.join('\n')) })}
          />
        )}
      >
        {plural(addresses.length, 'address', 'addresses')}
      </Word>
      , {plural(files.length, 'uploaded document')}, and <SitemapWords settings={settings} put={put} />; start from{' '}
      <StartWord start={startFrom} onChange={(next) => put({ startFrom: next })} />; leave out those with{' '}
      <ExcludeWord exclude={exclude} onChange={(next) => put({ exclude: next })} />.
    </p>
  );
}

function SitemapWords({ settings: { sitemap, within }, put }: SentenceProps) {
  return (
    <>
      <Word
        label="Sitemap"
        editor={(close) => (
          <TextEditor
            label="Address of a sitemap, or of a site"
            value={sitemap ?? ''}
            hint="Empty reads none."
            onChange={(text) => {
              const at = text.trim();
              if (at === '') put({ sitemap: null });
              else if (URL.canParse(at) && /^https?:/.test(at)) put({ sitemap: at });
            }}
            onDone={close}
          />
        )}
      >
        {sitemap === null ? 'no sitemap' : sitemap.replace(/^https?:\/\//, '')}
      </Word>
      {sitemap === null ? null : (
        <>
          , of it pages with{' '}
          <Word
            label="Pages with"
            editor={(close) => (
              <TextEditor
                label="Text their address holds"
                value={within}
                hint="As /guides/; empty takes all."
                onChange={(text) => put({ within: text.trim() })}
                onDone={close}
              />
            )}
          >
            {within === '' ? 'any address' : within}
          </Word>
        </>
      )}
    </>
  );
}
