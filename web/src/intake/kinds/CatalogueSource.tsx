import { CataloguePreview, type CatalogueSettings, type SourceWhole } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { call, inWords } from '../../api/call.ts';
import { ChoiceWord, Head, Loading, Trouble } from '../../design/index.ts';
import { count, plural } from '../../words/figures.ts';
import { FileButton } from '../FileButton.tsx';
import { ItemsSource } from '../items/ItemsSource.tsx';
import { uploadAll } from '../uploads.ts';
import { useChange } from '../useSource.ts';
import { CatalogueSentence } from './CatalogueSentence.tsx';

type Columns = NonNullable<CatalogueSettings['columns']>;

const SAYS: Record<keyof Columns, string> = {
  name: 'name',
  link: 'link',
  id: 'what tells it apart',
  category: 'category',
  language: 'language',
  price: 'price',
  popularity: 'popularity',
  description: 'description',
  picture: 'picture',
};

/** A partner's list of products: what its columns say, which products pass and in what order, and the partner's link. */
export function CatalogueSource({ source, settings }: { source: SourceWhole; settings: CatalogueSettings }) {
  const change = useChange(source);
  const put = (next: Partial<CatalogueSettings>) => change.mutate({ ...settings, ...next });
  const preview = useQuery({
    queryKey: ['catalogue', source.id, settings],
    queryFn: () => call('POST', `/sources/${source.id}/catalogue`, { body: settings, answer: CataloguePreview }),
    placeholderData: (before) => before,
    retry: false,
  });
  const read = preview.data;
  const columns = read?.settings.kind === 'catalogue' ? read.settings.columns : settings.columns;
  return (
    <ItemsSource
      source={source}
      says={
        read
          ? `catalogue in ${read.format} of ${plural(read.products, 'product')}, ${count(read.passing)} pass`
          : 'catalogue'
      }
      one="product"
      actions={
        <FileButton
          says="Upload a list"
          busy="Uploading…"
          accept=".csv,.tsv,.xml,.json,.txt,.xlsx"
          onFiles={async (files) => {
            const [given] = await uploadAll(files);
            put({ file: given!.file, fileName: given!.fileName, address: null, columns: null });
          }}
        />
      }
      sentence={<CatalogueSentence settings={settings} put={put} />}
      above={
        <>
          {change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
          {preview.isError ? <Trouble>{inWords(preview.error)}</Trouble> : null}
        </>
      }
      aside={
        <section aria-label="What its columns say" className="pb-4">
          <Head title="What its columns say" right={read ? plural(read.columns.length, 'column') : ''} />
          {preview.isPending ? <Loading rows={6} /> : null}
          {columns && read ? (
            <ColumnWords columns={columns} read={read} onChange={(next) => put({ columns: next })} />
          ) : null}
          {read && read.first.length > 0 ? <Links of={read.first} /> : null}
        </section>
      }
      empty="Nothing has been read from it yet. Look at it once; looking takes nothing."
    />
  );
}

function ColumnWords({
  columns,
  read,
  onChange,
}: {
  columns: Columns;
  read: CataloguePreview;
  onChange: (columns: Columns) => void;
}) {
  return (
    <ul className="text-small">
      {(Object.keys(SAYS) as (keyof Columns)[]).map((column) => {
        const name = columns[column];
        return (
          <li key={column} className="grid grid-cols-[110px_minmax(0,1fr)] gap-x-2 border-b border-rule-soft py-1">
            <span className="text-ink-3">{SAYS[column]}</span>
            <span className="min-w-0">
              <ChoiceWord
                label={`Column of the ${SAYS[column]}`}
                value={name ?? ''}
                options={[
                  { value: '', says: 'no column', does: '' },
                  ...read.columns.map((one) => ({
                    value: one.name,
                    says: one.name,
                    does: one.sample.slice(0, 60),
                  })),
                ]}
                onChoose={(value) => onChange({ ...columns, [column]: value === '' ? null : value })}
              >
                {name ?? 'no column'}
              </ChoiceWord>
              <span className="block truncate text-ink-3">
                {read.columns.find((one) => one.name === name)?.sample ?? ''}
              </span>
            </span>
          </li>
        );
      })}
    </ul>
  );
}

/** Links as readers would get them, with the partner's part in them. */
function Links({ of }: { of: CataloguePreview['first'] }) {
  return (
    <div className="pt-4">
      <Head title="Links as readers get them" right="" />
      <ul className="text-small">
        {of.slice(0, 3).map((one, i) => (
          <li key={i} className="border-b border-rule-soft py-1">
            <span className="block truncate">{one.name}</span>
            {one.link === null || !/^https?:\/\//i.test(one.link) ? (
              <span className="block break-all text-ink-3">{one.link ?? 'no link'}</span>
            ) : (
              <a
                className="brackets block break-all text-ink-3 hover:underline"
                href={one.link}
                target="_blank"
                rel="noreferrer"
              >
                {one.link}
              </a>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
