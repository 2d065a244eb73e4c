import { CataloguePreview, type CatalogueSettings, type SourceWhole } from '@grivo/contract';
import { languageName } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { call, inWords } from '../../api/call.ts';
import {
  ChoiceEditor,
  Head,
  Loading,
  NumberEditor,
  TextEditor,
  Trouble,
  ValuesEditor,
  Word,
} from '../../design/index.ts';
import { count, plural } from '../../words/figures.ts';
import { inARow } from '../../words/list.ts';
import { FileButton } from '../FileButton.tsx';
import { ItemsSource } from '../items/ItemsSource.tsx';
import { ExcludeWord, StartWord } from '../LookWords.tsx';
import { uploadAll } from '../uploads.ts';
import { useChange } from '../useSource.ts';

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
      sentence={<Sentence settings={settings} put={put} />}
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
          {read && read.first.length > 0 ? (
            <div className="pt-4">
              <Head title="Links as readers get them" right="" />
              <ul className="text-small">
                {read.first.slice(0, 3).map((one, i) => (
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
          ) : null}
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
              <Word
                label={`Column of the ${SAYS[column]}`}
                editor={(close) => (
                  <ChoiceEditor
                    value={name ?? ''}
                    options={[
                      { value: '', says: 'no column', does: '' },
                      ...read.columns.map((one) => ({
                        value: one.name,
                        says: one.name,
                        does: one.sample.slice(0, 60),
                      })),
                    ]}
                    onChoose={(value) => {
                      onChange({ ...columns, [column]: value === '' ? null : value });
                      close();
                    }}
                  />
                )}
              >
                {name ?? 'no column'}
              </Word>
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

const ORDERS: { value: CatalogueSettings['order']; does: string }[] = [
  { value: 'as listed', does: 'in the order of the list' },
  { value: 'most popular', does: 'by the column that says how popular each is' },
  { value: 'cheapest', does: 'by the price, the lowest first' },
  { value: 'dearest', does: 'by the price, the highest first' },
];

function Sentence({ settings, put }: { settings: CatalogueSettings; put: (next: Partial<CatalogueSettings>) => void }) {
  const { price } = settings;
  const money = (label: string, field: 'from' | 'to', none: string) => (
    <Word
      label={label}
      editor={() => (
        <NumberEditor
          label={label}
          value={price[field] === null ? null : Math.round(price[field])}
          least={0}
          most={1_000_000}
          none={none}
          onChange={(value) => put({ price: { ...price, [field]: value } })}
        />
      )}
    >
      {price[field] === null ? none : count(price[field])}
    </Word>
  );
  return (
    <p>
      Take products of{' '}
      <Word
        label="Categories"
        editor={() => (
          <ValuesEditor
            label="Categories, one a line"
            value={settings.categories}
            most={100}
            onChange={(categories) => put({ categories })}
          />
        )}
      >
        {settings.categories.length === 0 ? 'every category' : settings.categories.join(', ')}
      </Word>{' '}
      in{' '}
      <Word
        label="Languages"
        editor={() => (
          <ValuesEditor
            label="Languages of two letters, one a line"
            value={settings.languages}
            most={100}
            onChange={(languages) => put({ languages: languages.map((one) => one.toLowerCase().slice(0, 2)) })}
          />
        )}
      >
        {settings.languages.length === 0 ? 'any language' : inARow(settings.languages.map(languageName))}
      </Word>
      , at a price from {money('Lowest price', 'from', 'nothing')} to {money('Highest price', 'to', 'any')}, none with{' '}
      <ExcludeWord exclude={settings.exclude} label="Leave out names with" onChange={(exclude) => put({ exclude })} />;{' '}
      <Word
        label="Order"
        editor={(close) => (
          <>
            <ChoiceEditor
              value={settings.order}
              options={ORDERS.map(({ value, does }) => ({ value, says: value, does }))}
              onChoose={(order) => {
                put({ order: order as CatalogueSettings['order'] });
                close();
              }}
            />
            <label className="flex items-center gap-2 pt-3">
              <input
                type="checkbox"
                checked={settings.spread}
                onChange={(event) => put({ spread: event.target.checked })}
              />
              categories take turns
            </label>
          </>
        )}
      >
        {settings.order}
        {settings.spread ? ', categories in turn' : ''}
      </Word>{' '}
      first,{' '}
      <Word
        label="At most"
        editor={() => (
          <NumberEditor
            label="At most"
            value={settings.most}
            least={1}
            most={50_000}
            none="all of them"
            unit="products"
            onChange={(most) => put({ most })}
          />
        )}
      >
        {settings.most === null ? 'all of them' : `the first ${count(settings.most)}`}
      </Word>
      ; link them as{' '}
      <Word
        label="Partner’s link"
        editor={(close) => (
          <TextEditor
            label="The partner’s link"
            value={settings.partnerLink}
            hint="{link} and {id} are the product’s, {partner} your id: {link}?partner={partner}. Empty leaves links as they are."
            onChange={(text) => {
              const pattern = text.trim();
              if (pattern === '' || /\{link\}|\{id\}/.test(pattern)) put({ partnerLink: pattern });
            }}
            onDone={close}
          />
        )}
      >
        {settings.partnerLink === '' ? 'they are' : settings.partnerLink}
      </Word>
      {settings.partnerLink === '' ? null : (
        <>
          {' '}
          with the id{' '}
          <Word
            label="Your id"
            editor={(close) => (
              <TextEditor
                label="Your id at the partner"
                value={settings.partner}
                onChange={(partner) => put({ partner: partner.trim() })}
                onDone={close}
              />
            )}
          >
            {settings.partner === '' ? 'not given yet' : settings.partner}
          </Word>
        </>
      )}
      ; start from <StartWord start={settings.startFrom} onChange={(startFrom) => put({ startFrom })} />.
    </p>
  );
}
