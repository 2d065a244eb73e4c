import type { CatalogueSettings } from '@grivo/contract';
import { languageName } from '@grivo/core';
import { ChoiceEditor, NumberEditor, TextEditor, Tick, ValuesEditor, Word } from '../../design/index.ts';
import { count } from '../../words/figures.ts';
import { inARow } from '../../words/list.ts';
import { ExcludeWord, StartWord } from '../LookWords.tsx';

interface SentenceProps {
  settings: CatalogueSettings;
  put: (next: Partial<CatalogueSettings>) => void;
}

/** Which products are taken and in what order, as one sentence. */
export function CatalogueSentence(props: SentenceProps) {
  const { settings, put } = props;
  return (
    <p>
      Take products of <CategoriesWord {...props} /> in <LanguagesWord {...props} />, at a price from{' '}
      <PriceWord {...props} label="Lowest price" field="from" none="nothing" /> to{' '}
      <PriceWord {...props} label="Highest price" field="to" none="any" />, none with{' '}
      <ExcludeWord exclude={settings.exclude} label="Leave out names with" onChange={(exclude) => put({ exclude })} />;{' '}
      <OrderWord {...props} /> first, <MostWord {...props} />; link them as <PartnerWords {...props} />; start from{' '}
      <StartWord start={settings.startFrom} onChange={(startFrom) => put({ startFrom })} />.
    </p>
  );
}

function CategoriesWord({ settings: { categories }, put }: SentenceProps) {
  return (
    <Word
      label="Categories"
      editor={() => (
        <ValuesEditor
          label="Categories, one a line"
          value={categories}
          most={100}
          onChange={(next) => put({ categories: next })}
        />
      )}
    >
      {categories.length === 0 ? 'every category' : categories.join(', ')}
    </Word>
  );
}

function LanguagesWord({ settings: { languages }, put }: SentenceProps) {
  return (
    <Word
      label="Languages"
      editor={() => (
        <ValuesEditor
          label="Languages of two letters, one a line"
          value={languages}
          most={100}
          onChange={(next) => put({ languages: next.map((one) => one.toLowerCase().slice(0, 2)) })}
        />
      )}
    >
      {languages.length === 0 ? 'any language' : inARow(languages.map(languageName))}
    </Word>
  );
}

function PriceWord({
  settings: { price },
  put,
  label,
  field,
  none,
}: SentenceProps & { label: string; field: 'from' | 'to'; none: string }) {
  return (
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
}

const ORDERS: { value: CatalogueSettings['order']; does: string }[] = [
  { value: 'as listed', does: 'in the order of the list' },
  { value: 'most popular', does: 'by the column that says how popular each is' },
  { value: 'cheapest', does: 'by the price, the lowest first' },
  { value: 'dearest', does: 'by the price, the highest first' },
];

function OrderWord({ settings: { order, spread }, put }: SentenceProps) {
  return (
    <Word
      label="Order"
      editor={(close) => (
        <>
          <ChoiceEditor
            value={order}
            options={ORDERS.map(({ value, does }) => ({ value, says: value, does }))}
            onChoose={(chosen) => {
              put({ order: chosen as CatalogueSettings['order'] });
              close();
            }}
          />
          <div className="pt-3">
            <Tick label="categories take turns" state={spread} onChange={(on) => put({ spread: on })}>
              categories take turns
            </Tick>
          </div>
        </>
      )}
    >
      {order}
      {spread ? ', categories in turn' : ''}
    </Word>
  );
}

function MostWord({ settings: { most }, put }: SentenceProps) {
  return (
    <Word
      label="At most"
      editor={() => (
        <NumberEditor
          label="At most"
          value={most}
          least={1}
          most={50_000}
          none="all of them"
          unit="products"
          onChange={(next) => put({ most: next })}
        />
      )}
    >
      {most === null ? 'all of them' : `the first ${count(most)}`}
    </Word>
  );
}

function PartnerWords({ settings: { partnerLink, partner }, put }: SentenceProps) {
  return (
    <>
      <Word
        label="Partner’s link"
        editor={(close) => (
          <TextEditor
            label="The partner’s link"
            value={partnerLink}
            hint="{link} and {id} are the product’s, {partner} your id: {link}?partner={partner}. Empty leaves links as they are."
            onChange={(text) => {
              const pattern = text.trim();
              if (pattern === '' || /\{link\}|\{id\}/.test(pattern)) put({ partnerLink: pattern });
            }}
            onDone={close}
          />
        )}
      >
        {partnerLink === '' ? 'they are' : partnerLink}
      </Word>
      {partnerLink === '' ? null : (
        <>
          {' '}
          with the id{' '}
          <Word
            label="Your id"
            editor={(close) => (
              <TextEditor
                label="Your id at the partner"
                value={partner}
                onChange={(next) => put({ partner: next.trim() })}
                onDone={close}
              />
            )}
          >
            {partner === '' ? 'not given yet' : partner}
          </Word>
        </>
      )}
    </>
  );
}
