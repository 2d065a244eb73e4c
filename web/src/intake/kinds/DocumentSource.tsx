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
      sentence={
        <p>
          Read{' '}
          <Word
            label="Addresses"
            editor={() => (
              <ValuesEditor
                label="Addresses of pages and documents, one a line"
                value={settings.addresses}
                most={500}
                onChange={(lines) => put({ addresses: addressesIn(lines.join('\n')) })}
              />
            )}
          >
            {plural(settings.addresses.length, 'address', 'addresses')}
          </Word>
          , {plural(settings.files.length, 'uploaded document')}, and{' '}
          <Word
            label="Sitemap"
            editor={(close) => (
              <TextEditor
                label="Address of a sitemap, or of a site"
                value={settings.sitemap ?? ''}
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
            {settings.sitemap === null ? 'no sitemap' : settings.sitemap.replace(/^https?:\/\//, '')}
          </Word>
          {settings.sitemap === null ? null : (
            <>
              , of it pages with{' '}
              <Word
                label="Pages with"
                editor={(close) => (
                  <TextEditor
                    label="Text their address holds"
                    value={settings.within}
                    hint="As /guides/; empty takes all."
                    onChange={(within) => put({ within: within.trim() })}
                    onDone={close}
                  />
                )}
              >
                {settings.within === '' ? 'any address' : settings.within}
              </Word>
            </>
          )}
          ; start from <StartWord start={settings.startFrom} onChange={(startFrom) => put({ startFrom })} />; leave out
          those with <ExcludeWord exclude={settings.exclude} onChange={(exclude) => put({ exclude })} />.
        </p>
      }
      above={change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
      empty="No documents yet. Upload some, or give addresses in the sentence above and look at it."
    />
  );
}
