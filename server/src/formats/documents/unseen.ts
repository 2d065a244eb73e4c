import type { DomDocument, DomElement } from './dom.ts';

/**
 * What a reader of a page cannot see is not read: it may say things to machines that people are not told. Known are the
 * plain cases, as a page's own styles and the attributes of its elements say them; styles from elsewhere are not fetched.
 */

/** Elements nobody sees, or that are no text. */
const NEVER =
  '[hidden],[aria-hidden="true"],script,style,noscript,template,object,iframe,svg,math,dialog:not([open]),input,textarea';

/** Declarations by property: those that say they are important come before all others, whoever says them. */
interface Declared {
  usual: Map<string, string>;
  important: Map<string, string>;
}

/** Declarations of one rule or one style attribute; the last of a property counts. */
function declarationsOf(text: string): Declared {
  const out: Declared = { usual: new Map(), important: new Map() };
  for (const part of text.split(';')) {
    const colon = part.indexOf(':');
    if (colon < 0) continue;
    const name = part.slice(0, colon).trim().toLowerCase();
    if (!LOOKED_AT.test(name)) continue;
    const said = part
      .slice(colon + 1)
      .trim()
      .toLowerCase();
    const bang = said.indexOf('!important');
    if (bang < 0) out.usual.set(name, said);
    else out.important.set(name, said.slice(0, bang).trim());
  }
  return out;
}

/** What a rule says of these is looked at; all others are left. */
const LOOKED_AT =
  /display|visibility|opacity|filter|font|width|height|position|left|top|right|bottom|inset|float|overflow|indent|margin|clip|transform|scale|translate|color|background|letter-spacing/;

const PX: Record<string, number> = {
  px: 1,
  pt: 4 / 3,
  em: 16,
  rem: 16,
  ex: 8,
  ch: 8,
  vw: 12,
  vh: 8,
  cm: 38,
  mm: 3.8,
  in: 96,
  '': 1,
};

/** A length in pixels, roughly; null where it is none, or a share of something unknown. */
function pixels(text: string | undefined): number | null {
  const found = /^(-?\d{0,9}(?:\.\d{1,9})?)(px|pt|em|rem|ex|ch|vw|vh|cm|mm|in|)$/.exec(text ?? '');
  return found && found[1] !== '' && found[1] !== '-' ? Number(found[1]) * PX[found[2]!]! : null;
}

const NAMED: Record<string, string> = { white: 'fff', black: '000', transparent: '' };

/** A colour as red, green, blue; null where it says nothing, 'none' where nothing of it is seen. */
function colourOf(text: string | undefined): [number, number, number] | 'none' | null {
  if (text === undefined) return null;
  const said = text.trim();
  if (said === 'transparent') return 'none';
  const hex = NAMED[said] ?? /^#([0-9a-f]{3,8})$/.exec(said)?.[1];
  if (hex) {
    if (hex.length === 4 && hex[3] === '0') return 'none';
    if (hex.length === 8 && hex.slice(6) === '00') return 'none';
    const six = hex.length <= 4 ? [...hex.slice(0, 3)].map((one) => one + one).join('') : hex.slice(0, 6);
    return [0, 2, 4].map((at) => Number.parseInt(six.slice(at, at + 2), 16)) as [number, number, number];
  }
  const rgb = /^(rgb|hsl)a?\(([^()]{1,60})\)$/.exec(said);
  if (!rgb) return null;
  const parts = rgb[2]!.split(/[\s,/]+/).filter((part) => part !== '');
  if (parts[3] !== undefined && Number.parseFloat(parts[3]) === 0) return 'none';
  if (rgb[1] === 'hsl') {
    const light = Number.parseFloat(parts[2] ?? '');
    return light >= 99 ? [255, 255, 255] : light <= 1 ? [0, 0, 0] : null;
  }
  const figures = parts
    .slice(0, 3)
    .map((part) => Math.round(Number.parseFloat(part) * (part.endsWith('%') ? 2.55 : 1)));
  return figures.length === 3 && figures.every(Number.isFinite) ? (figures as [number, number, number]) : null;
}

/** How far two colours lie apart, 0 to 765; letters closer to their ground than this are not told from it. */
const SAME = 30;
const apart = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((sum, one, i) => sum + Math.abs(one - b[i]!), 0);

/** Off the edge of any page. */
const FAR = 900;

/** Whether what an element's style says keeps people from seeing it, its colours apart. */
function hides(style: ReadonlyMap<string, string>): boolean {
  const at = (name: string) => style.get(name);
  const value = (name: string) => pixels(at(name));
  const within = (name: string, most: number) => {
    const length = value(name);
    return length !== null && length <= most;
  };
  if (at('display') === 'none' || at('content-visibility') === 'hidden') return true;
  if (at('visibility') === 'hidden' || at('visibility') === 'collapse') return true;
  const opacity = at('opacity');
  if (opacity !== undefined && Number.parseFloat(opacity) * (opacity.endsWith('%') ? 0.01 : 1) <= 0.05) return true;
  if (/opacity\(0(?:%|\.0+)?\)/.test((at('filter') ?? '').replace(/\s+/g, ''))) return true;
  if (within('font-size', 2) || /(?:^|\s)0(?:px|pt|em|rem)?[\s/]/.test(`${at('font') ?? ''} `)) return true;
  // Shown in a box of nothing, what overflows cut off.
  const cut = /hidden|clip/.test(`${at('overflow') ?? ''}${at('overflow-x') ?? ''}${at('overflow-y') ?? ''}`);
  const out = at('position') === 'absolute' || at('position') === 'fixed';
  if ((cut || out) && ['width', 'height', 'max-width', 'max-height', 'line-height'].some((name) => within(name, 1)))
    return true;
  if (out || at('position') === 'relative' || at('float') !== undefined)
    for (const name of ['left', 'top', 'right', 'bottom', 'inset'])
      if ((value(name) ?? 0) <= -FAR || (value(name) ?? 0) >= FAR * 10) return true;
  for (const name of ['text-indent', 'margin-left', 'margin-top', 'margin', 'letter-spacing'])
    if ((value(name) ?? 0) <= (name === 'letter-spacing' ? -10 : -FAR)) return true;
  const clip = `${at('clip') ?? ''} ${at('clip-path') ?? ''} ${at('-webkit-clip-path') ?? ''}`;
  if (/rect\(\s*(?:0|1)(?:px)?[\s,]+(?:0|1)(?:px)?[\s,]+(?:0|1)(?:px)?[\s,]+(?:0|1)(?:px)?\s*\)/.test(clip))
    return true;
  if (
    /inset\(\s*(?:50|[6-9]\d|100)%/.test(clip) ||
    /(?:circle|ellipse)\(\s*0/.test(clip) ||
    /polygon\(\s*0[^,()]*,\s*0[^,()]*,\s*0[^,()]*\)/.test(clip)
  )
    return true;
  const move = (at('transform') ?? '').replace(/\s+/g, '');
  if (/scale[xy]?\(0?(?:\.0\d*)?[,)]/.test(move) || at('scale') === '0') return true;
  const moved = /translate(?:x|y|3d)?\((-?\d{1,9}(?:\.\d{1,9})?)(px|em|rem|vw|vh|%)/.exec(move);
  return moved !== null && Math.abs(Number(moved[1]) * (moved[2] === '%' ? 8 : PX[moved[2]!]!)) >= FAR;
}

interface Rule {
  selector: string;
  style: Declared;
}

const MOST_RULES = 3_000;
const MOST_CSS = 500_000;
/** The plain rules of a page's own styles: those for screens, without states, and none of what is nested in conditions of print. */
function rulesOf(css: string): Rule[] {
  const rules: Rule[] = [];
  const text = withoutComments(css.slice(0, MOST_CSS));
  let at = 0;
  let skip = 0;
  while (at < text.length && rules.length < MOST_RULES) {
    const open = text.indexOf('{', at);
    if (open < 0) break;
    const close = text.indexOf('}', at);
    if (close >= 0 && close < open) {
      at = close + 1;
      skip = Math.max(0, skip - 1);
      continue;
    }
    const head = text.slice(at, open).split(';').at(-1)!.trim();
    if (head.startsWith('@')) {
      // Inside a condition that holds on a desk's screen its rules hold; inside any other they are stepped over.
      const holds = /^@(?:supports|layer)/i.test(head) || (/^@media/i.test(head) && onDesk(head.slice(6)));
      at = holds ? open + 1 : endOf(text, open);
      if (holds) skip++;
      continue;
    }
    const end = text.indexOf('}', open);
    const style = declarationsOf(text.slice(open + 1, end < 0 ? text.length : end));
    if (style.usual.size + style.important.size > 0)
      for (const selector of head.split(',')) {
        const plain = selector.trim();
        // A state that comes and goes, and made-up content, hide no text.
        if (
          plain !== '' &&
          plain.length < 300 &&
          !/::?(?:before|after|hover|focus|active|visited|checked|target|placeholder|marker|selection|first-l)/.test(
            plain,
          )
        )
          rules.push({ selector: plain, style });
      }
    at = end < 0 ? text.length : end + 1;
  }
  return rules;
}

/** A desk's screen, in pixels. */
const WIDE = 1_280;

/** Whether a condition of a page's styles holds on a desk's screen; of what is not about width nothing is known. */
function onDesk(condition: string): boolean {
  return condition.split(',').some((one) => {
    const features = [...one.matchAll(/\(([^()]*)\)/g)].map(([, feature = '']) => feature.trim().toLowerCase());
    if (/\b(?:print|speech|not)\b/i.test(one)) return false;
    return features.every((feature) => {
      const [name = '', said] = feature.split(':').map((part) => part.trim());
      const width = pixels(said);
      if (width === null) return false;
      return name === 'min-width' ? width <= WIDE : name === 'max-width' ? width >= WIDE : false;
    });
  });
}

function withoutComments(css: string): string {
  let out = '';
  let at = 0;
  for (;;) {
    const open = css.indexOf('/*', at);
    if (open < 0) return out + css.slice(at);
    out += css.slice(at, open);
    const close = css.indexOf('*/', open + 2);
    if (close < 0) return out;
    at = close + 2;
  }
}

function endOf(text: string, open: number): number {
  let depth = 0;
  for (let at = open; at < text.length; at++) {
    if (text[at] === '{') depth++;
    else if (text[at] === '}' && --depth === 0) return at + 1;
  }
  return text.length;
}

/** Weight of a selector (Selectors level 4, section 15), as one figure. */
function weightOf(selector: string): number {
  const ids = selector.match(/#[\w-]+/g)?.length ?? 0;
  const classes = selector.match(/\.[\w-]+|\[[^\][]*\]|:(?!:)[\w-]+/g)?.length ?? 0;
  const types = selector.match(/(?:^|[\s>+~])[a-z][\w-]*/gi)?.length ?? 0;
  return ids * 1_000_000 + classes * 1_000 + types;
}

interface Weighed extends Rule {
  n: number;
  weight: number;
  /** Whether its selector is only what it is found by. */
  plain: boolean;
}

/** Rules by what the element they speak of must have: an id, a class, a name; all others under a star. */
function byLast(rules: readonly Rule[]): Map<string, Weighed[]> {
  const out = new Map<string, Weighed[]>();
  for (const [n, rule] of rules.entries()) {
    const last = rule.selector.split(/[\s>+~]/).at(-1)!;
    const key = /#[\w-]+|\.[\w-]+/.exec(last)?.[0] ?? /^[a-z][\w-]*/i.exec(last)?.[0].toLowerCase() ?? '*';
    const list = out.get(key);
    const weighed = { ...rule, n, weight: weightOf(rule.selector), plain: rule.selector === key };
    if (list) list.push(weighed);
    else out.set(key, [weighed]);
  }
  return out;
}

/** The styles elements get from rules and from themselves, for those that get any. */
function stylesOf(document: DomDocument): Map<DomElement, ReadonlyMap<string, string>> {
  const css = [...document.querySelectorAll('style')].map((node) => node.textContent ?? '').join('\n');
  const rules = byLast(rulesOf(css));
  const styles = new Map<DomElement, ReadonlyMap<string, string>>();
  for (const node of document.querySelectorAll('*')) {
    const keys = [
      node.tagName.toLowerCase(),
      `#${node.getAttribute('id') ?? ''}`,
      ...(node.getAttribute('class') ?? '')
        .slice(0, 2_000)
        .split(/\s+/)
        .map((name) => `.${name}`),
      '*',
    ];
    const found = rules.size === 0 ? [] : keys.flatMap((key) => rules.get(key) ?? []);
    const holding = found
      .filter(({ plain, selector }) => plain || matches(node, selector))
      .sort((a, b) => a.weight - b.weight || a.n - b.n)
      .map(({ style }) => style);
    const own = node.getAttribute('style');
    if (own !== null) holding.push(declarationsOf(own));
    const attributes = ofAttributes(node);
    if (attributes.size === 0 && holding.length === 0) continue;
    const style = new Map(attributes);
    for (const { usual } of holding) for (const [name, said] of usual) style.set(name, said);
    for (const { important } of holding) for (const [name, said] of important) style.set(name, said);
    styles.set(node, style);
  }
  return styles;
}

/** Colours as pages said them before there were styles. */
function ofAttributes(node: DomElement): Map<string, string> {
  const out = new Map<string, string>();
  const colour = node.tagName === 'FONT' ? node.getAttribute('color') : null;
  if (colour) out.set('color', colour.toLowerCase());
  const ground = node.getAttribute('bgcolor');
  if (ground) out.set('background-color', ground.toLowerCase());
  return out;
}

/** A selector nobody understands matches nothing. */
function matches(node: DomElement, selector: string): boolean {
  try {
    return node.matches(selector);
  } catch {
    return false;
  }
}

const groundOf = (style: ReadonlyMap<string, string> | undefined): string | undefined => {
  const said = style?.get('background-color');
  if (said !== undefined) return said;
  // Of several words of a background the colour is the one that is one.
  return style
    ?.get('background')
    ?.match(/[^\s()]+(?:\([^()]*\))?/g)
    ?.find((word) => colourOf(word) !== null);
};

/** Takes out of a document what nobody sees of it, comments and letters without a shape among it. */
export function withoutUnseen(document: DomDocument): void {
  const styles = stylesOf(document);
  for (const node of document.querySelectorAll(NEVER)) node.remove();
  for (const [node, style] of styles)
    if (hides(style) && node.tagName !== 'HTML' && node.tagName !== 'BODY') node.remove();
  type Colour = [number, number, number] | 'none';
  const INK: Colour = [0, 0, 0];
  const PAPER: Colour = [255, 255, 255];
  const walk = (node: DomElement, ink: Colour, ground: Colour): void => {
    const style = styles.get(node);
    const own = colourOf(style?.get('color')) ?? colourOf(style?.get('-webkit-text-fill-color')) ?? ink;
    const under = colourOf(groundOf(style));
    // A picture behind letters may give them any ground.
    const pictured = /url\(|gradient\(/.test(
      `${style?.get('background') ?? ''}${style?.get('background-image') ?? ''}`,
    );
    const now = pictured ? 'none' : under === null || under === 'none' ? ground : under;
    const unseen = own === 'none' || (now !== 'none' && apart(own, now) < SAME);
    for (const child of [...node.childNodes]) {
      if (child.nodeType === 1) walk(child as DomElement, own, now);
      else if (child.nodeType === 8) child.remove();
      else if (child.nodeType === 3 && unseen) child.remove();
    }
  };
  if (document.body) walk(document.body, INK, PAPER);
}
