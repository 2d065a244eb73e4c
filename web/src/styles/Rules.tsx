import { ChoiceWord, Head, NumberOnce, TextWord, Word } from '../design/index.ts';
import type { StyleEdit } from './useStyle.ts';

/** How many links an article may have, and where. */
export function Links({ edit: { words, put } }: { edit: StyleEdit }) {
  const { links } = words;
  return (
    <div className="pt-4">
      <Head title="Links" right="to our own pages" />
      <p className="pt-2 text-proc leading-7">
        At most <MostWord most={links.most} onPut={(most) => put({ links: { ...links, most } })} /> an article,{' '}
        <Word
          label="Links in a paragraph"
          editor={(close) => (
            <NumberOnce
              value={links.aParagraph}
              least={1}
              most={5}
              unit="links in a paragraph"
              onPut={(aParagraph) => put({ links: { ...links, aParagraph } })}
              close={close}
            />
          )}
        >
          {links.aParagraph}
        </Word>{' '}
        a paragraph,{' '}
        <span className="whitespace-nowrap">
          <ChoiceWord
            label="Links in the opening"
            value={links.inOpening ? 'in' : 'out'}
            options={[
              { value: 'in', says: 'the opening like the rest', does: 'links may stand above the first heading' },
              { value: 'out', says: 'none in the opening', does: 'nothing leads away before the first heading' },
            ]}
            onChoose={(where) => put({ links: { ...links, inOpening: where === 'in' } })}
          />
          .
        </span>
      </p>
    </div>
  );
}

function MostWord({ most, onPut }: { most: number | null; onPut: (most: number | null) => void }) {
  return (
    <Word
      label="Links in an article"
      editor={(close) => (
        <>
          <NumberOnce value={most ?? 5} least={0} most={50} unit="links in an article" onPut={onPut} close={close} />
          <button
            type="button"
            className="act quiet brackets mt-2"
            onClick={() => {
              onPut(null);
              close();
            }}
          >
            As many as the step says
          </button>
        </>
      )}
    >
      {most ?? 'as many as the step says'}
    </Word>
  );
}

/** How pictures are drawn, and what readers are told. */
export function Pictures({ edit: { words, put } }: { edit: StyleEdit }) {
  return (
    <div className="pt-4">
      <Head title="Pictures" right="how they are drawn" />
      <p className="pt-2 text-proc leading-7">
        <TextWord
          label="How pictures are drawn"
          value={words.pictures}
          hint="As “line drawing, flat wash, no hands”. Used by steps that name no manner of their own."
          onPut={(pictures) => put({ pictures: pictures.slice(0, 300) })}
        >
          {words.pictures || 'in any manner'}
        </TextWord>
        .
      </p>
    </div>
  );
}
