import type { articleNodes } from '@grivo/core';
import { createElement, type ReactNode } from 'react';

type Node = ReturnType<typeof articleNodes>[number]['node'];
type Element = Extract<NonNullable<Node>, { type: 'element' }>;

/**
 * A block of an article as it is published. Nothing of anybody else's is loaded here: players and stills are named.
 * @param ringed words no passage holds; they are ringed where they stand, in whatever order they are named
 */
export function Drawn({ node, ringed }: { node: Node; ringed: readonly string[] }): ReactNode {
  if (node === null) return null;
  if (node.type === 'text') return ring(node.value, ringed);
  if (node.type === 'element') return drawElement(node, ringed);
  // Only the owner's own markup comes as it is; it is shown, never run.
  return 'value' in node ? (
    <div className="mt-3">
      <p className="!mt-0 !font-ui !text-[12px] text-ink-3">Your own markup, as it goes to the blog</p>
      <pre className="overflow-auto border border-rule p-2 font-mono text-[12px] leading-[18px] whitespace-pre-wrap">
        {node.value}
      </pre>
    </div>
  ) : null;
}

function drawElement(element: Element, ringed: readonly string[]): ReactNode {
  const { tagName, properties } = element;
  const children = element.children.map((child, i) => <Drawn key={i} node={child} ringed={ringed} />);
  const outside = tagName === 'img' && !String(properties['src']).startsWith('/');
  if (outside || tagName === 'iframe' || tagName === 'video') {
    const stands = outside ? 'The still of the video' : 'The video';
    return (
      <span className="stands">{stands} stands here on the blog; what is outside is not loaded on this page.</span>
    );
  }
  const attributes = Object.fromEntries(
    Object.entries(properties).map(([name, value]) => [
      name === 'ariaLabel' ? 'aria-label' : name,
      name === 'style' ? styled(String(value)) : Array.isArray(value) ? value.join(' ') : value,
    ]),
  );
  const leads = tagName === 'a' ? leadsTo(String(properties['href'])) : {};
  return createElement(tagName, { ...attributes, ...leads }, ...children);
}

/** A style of an element as the screen takes it: `max-width:35%`. */
function styled(text: string): Record<string, string> {
  return Object.fromEntries(
    text.split(';').map((one) => {
      const [name, value] = one.split(':');
      return [name!.replace(/-([a-z])/g, (_, letter: string) => letter.toUpperCase()), value!];
    }),
  );
}

/** Links leave the application in a tab of their own; those inside the page stay. */
function leadsTo(href: string): object {
  return href.startsWith('#') ? {} : { target: '_blank', rel: 'noreferrer', title: href };
}

function ring(text: string, ringed: readonly string[]): ReactNode {
  const [first] = ringed
    .map((hit) => ({ hit, from: text.indexOf(hit) }))
    .filter(({ from }) => from >= 0)
    .sort((a, b) => a.from - b.from || b.hit.length - a.hit.length);
  if (!first) return text;
  const { hit, from } = first;
  return (
    <>
      {text.slice(0, from)}
      <span className="rounded-full border border-red px-0.5 text-red">{hit}</span>
      {ring(text.slice(from + hit.length), ringed)}
    </>
  );
}
