import type { ArticleDocument } from '@grivo/core';
import { Popover } from 'radix-ui';
import { memo, type RefObject, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { Field } from '../design/index.ts';
import { count } from '../words/figures.ts';
import { AnewTitle } from './AnewTitle.tsx';

type Details = Pick<
  ArticleDocument,
  'title' | 'titleChoices' | 'description' | 'slug' | 'keyPhrase' | 'keywords' | 'hashtags' | 'language'
>;

/** What of an article is no text of its body, the same object while none of it is another. */
export function useDetails(document: ArticleDocument): Details {
  const { title, titleChoices, description, slug, keyPhrase, keywords, hashtags, language } = document;
  return useMemo(
    () => ({ title, titleChoices, description, slug, keyPhrase, keywords, hashtags, language }),
    [title, titleChoices, description, slug, keyPhrase, keywords, hashtags, language],
  );
}

interface TitleFieldsProps {
  article: string;
  /** Whether they may have other titles written. */
  mayWrite: boolean;
  details: Details;
  /** The article as it is typed now, text and all. */
  documentNow: () => ArticleDocument;
  onChange: (details: Partial<Details>) => void;
}

/**
 * The title and the description of an article where readers see them; what search engines and readers get besides opens
 * under them. Nothing of it follows the letters typed into the text.
 */
export const TitleFields = memo(function TitleFields({
  article,
  mayWrite,
  details,
  documentNow,
  onChange,
}: TitleFieldsProps) {
  const { title, description, titleChoices } = details;
  const choose = (chosen: string) => onChange({ title: chosen, titleChoices: kept(details, chosen) });
  const others = titleChoices.filter((choice) => choice !== '' && choice !== title);
  return (
    <div className="pt-5">
      <Growing label="Title" className="proof-title" value={title} onChange={(text) => onChange({ title: text })} />
      <Growing
        label="Description"
        className="proof-description"
        value={description}
        onChange={(text) => onChange({ description: text })}
      />
      <p className="!font-ui flex flex-wrap gap-x-4 !text-[12px] text-ink-3">
        <span>
          <span className="fig">{count(title.length)}</span> characters in the title,{' '}
          <span className="fig">{count(description.length)}</span> in the description
        </span>
        {others.length > 0 ? <OtherTitles titles={others} onChoose={choose} /> : null}
        {mayWrite ? <AnewTitle article={article} documentNow={documentNow} onChoose={choose} /> : null}
        <More details={details} onChange={onChange} />
      </p>
      <Entry {...details} />
    </div>
  );
});

/** The title that is let go stays among those to choose from. */
function kept({ title, titleChoices }: Details, chosen: string): string[] {
  return [...new Set([...titleChoices, title, chosen])].filter((choice) => choice !== '');
}

function Growing({
  label,
  className,
  value,
  onChange,
}: {
  label: string;
  className: string;
  value: string;
  onChange: (text: string) => void;
}) {
  const field = useRef<HTMLTextAreaElement>(null);
  const wide = useWidth(field);
  // biome-ignore lint/correctness/useExhaustiveDependencies: how high it is hangs on its words and on its width
  useLayoutEffect(() => {
    const element = field.current!;
    element.style.height = '0';
    element.style.height = `${element.scrollHeight}px`;
  }, [value, wide]);
  return (
    <textarea
      ref={field}
      aria-label={label}
      placeholder={`No ${label.toLowerCase()} yet`}
      className={`${className} brackets`}
      rows={1}
      value={value}
      // Neither has lines.
      onChange={(event) => onChange(event.target.value.replace(/\n/g, ' '))}
      onKeyDown={(event) => event.key === 'Enter' && event.preventDefault()}
    />
  );
}

/** How wide something is, in pixels; it is told again once the page's faces are there, by a figure of its own. */
function useWidth(of: RefObject<HTMLElement | null>): number {
  const [wide, setWide] = useState(0);
  useLayoutEffect(() => {
    const element = of.current!;
    const watch = new ResizeObserver(() => setWide(element.clientWidth));
    watch.observe(element);
    void document.fonts?.ready.then(() => setWide(element.clientWidth + 0.5));
    return () => watch.disconnect();
  }, [of]);
  return wide;
}

function OtherTitles({ titles, onChoose }: { titles: readonly string[]; onChoose: (title: string) => void }) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <button type="button" className="act quiet brackets">
          {titles.length === 1 ? 'Another title to choose' : `${titles.length} other titles to choose from`}
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="pop" sideOffset={8} align="start" collisionPadding={12}>
          <ul className="pop-in">
            {titles.map((title) => (
              <li key={title}>
                <Popover.Close asChild>
                  <button type="button" className="choice !block cursor-pointer work" onClick={() => onChoose(title)}>
                    {title}
                  </button>
                </Popover.Close>
              </li>
            ))}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const listed = (text: string) =>
  text
    .split(',')
    .map((one) => one.trim())
    .filter((one) => one !== '');

/** What stands nowhere on the page. */
function More({ details, onChange }: { details: Details; onChange: (details: Partial<Details>) => void }) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <button type="button" className="act quiet brackets">
          Address, key phrase, tags…
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="pop w-[360px]" sideOffset={8} align="start" collisionPadding={12}>
          <div className="pop-in flex flex-col gap-2">
            <Field
              label="Last part of its address"
              hint="Counts for posts that are still to come; an address on a blog stays"
              value={details.slug}
              onChange={(event) =>
                onChange({
                  slug: event.target.value
                    .toLowerCase()
                    .replace(/[^\p{L}\p{N}-]+/gu, '-')
                    .slice(0, 200),
                })
              }
            />
            <Field
              label="Key phrase"
              value={details.keyPhrase}
              onChange={(event) => onChange({ keyPhrase: event.target.value })}
            />
            <Listed label="Related terms" value={details.keywords} onChange={(keywords) => onChange({ keywords })} />
            <Listed label="Hashtags" value={details.hashtags} onChange={(hashtags) => onChange({ hashtags })} />
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Listed({
  label,
  value,
  onChange,
}: {
  label: string;
  value: readonly string[];
  onChange: (value: string[]) => void;
}) {
  return (
    <Field
      label={`${label}, parted by commas`}
      defaultValue={value.join(', ')}
      onBlur={(event) => onChange(listed(event.target.value))}
    />
  );
}

/** How wide a line of a result is, in pixels; a longer title is cut there, a description behind two such lines. */
const ENTRY_PX = 580;
const DESCRIPTION_PX = 2 * ENTRY_PX - 60;

/** Roughly what an entry in the results of a search shows. */
function Entry({ title, description, slug }: Details) {
  return (
    <details className="!font-ui pt-1 text-small text-ink-3">
      <summary className="brackets w-fit cursor-pointer">How a search shows it</summary>
      <div className="mt-1 border border-rule p-2" style={{ width: ENTRY_PX + 18 }}>
        <p className="fig truncate text-ink-3">your blog › {slug || '…'}</p>
        <p className="truncate text-[18px] leading-6 text-ink" style={{ fontFamily: 'Arial, sans-serif' }}>
          {title || 'No title yet'}
        </p>
        <p className="line-clamp-2 text-ink-2">
          {description || 'No description yet: a search takes some words of the text.'}
        </p>
      </div>
      <Wide name="title" pixels={widthOf(title, 18)} most={ENTRY_PX} />
      {description === '' ? null : <Wide name="description" pixels={widthOf(description, 14)} most={DESCRIPTION_PX} />}
    </details>
  );
}

function Wide({ name, pixels, most }: { name: string; pixels: number; most: number }) {
  return (
    <p className="pt-1">
      The {name} is <span className="fig">{Math.round(pixels).toLocaleString('en-GB')}</span> of about{' '}
      <span className="fig">{most.toLocaleString('en-GB')}</span> pixels wide
      {pixels > most ? ' and will be cut.' : '.'}
    </p>
  );
}

let ruler: CanvasRenderingContext2D | null = null;

/** The width of words in a result, in pixels of a sans serif of so many. */
function widthOf(text: string, size: number): number {
  ruler ??= document.createElement('canvas').getContext('2d');
  if (!ruler) return text.length * size * 0.47;
  ruler.font = `${size}px Arial, sans-serif`;
  return ruler.measureText(text).width;
}
