import { contrastOf } from '../drawing/contrast.ts';
import { isFromRight } from '../drawing/direction.ts';
import { type Fitted, fitText } from '../drawing/fit.ts';
import { type Face, px } from '../drawing/type.ts';
import type { CardBox, CardDocument, CardFace, CardText } from './document.ts';

/** From baseline to baseline, as a multiple of the size. */
const LEADING = 1.16;
/** Letters beyond which no text is set. */
const LONGEST_SAID = 1_000;
/** Below it large letters are hard to read (WCAG 2.2, 1.4.3). */
const LEAST_CONTRAST = 3;

export interface CardProblem {
  /** Which of its texts, by number from 0. */
  text: number;
  sentence: string;
  mend: string;
  /** Whether the card cannot be drawn so. */
  stops: boolean;
}

export interface Drawn {
  /** The drawing (SVG 2), with letters as outlines: it looks the same wherever it is shown. */
  svg: string;
  /** How each text stands there; of one that says nothing no lines. */
  texts: { size: number; lines: string[] }[];
  problems: CardProblem[];
}

export interface CardNeeds {
  face: (face: CardFace, bold: boolean) => Face;
  /** The address a picture is shown from, by its file and the box it is shown in; null where it is gone. */
  picture: (file: string) => string | null;
}

/**
 * Draws a card: the ground, what stands on it in the order of the template, then the texts, each at the largest size at
 * which it fits its box.
 * @param says what each text of the template says here
 */
export function drawCard(card: CardDocument, says: readonly string[], needs: CardNeeds): Drawn {
  const problems: CardProblem[] = [];
  const texts: Drawn['texts'] = [];
  let letters = '';
  for (const [n, text] of card.texts.entries()) {
    const said = (says[n] ?? '').replace(/\s+/g, ' ').trim();
    // What is longer than any heading is not tried at every size.
    const fitted: Fitted =
      said.length > LONGEST_SAID
        ? { ok: false, why: 'too long' }
        : fitText(
            said,
            needs.face(text.face, text.bold),
            text.box,
            { ...text, leading: LEADING },
            {
              across: text.across,
              down: text.down,
              rightToLeft: isFromRight(said),
            },
          );
    if (!fitted.ok) {
      problems.push({ text: n, stops: true, ...told(said, text, fitted) });
      texts.push({ size: text.from, lines: [] });
      continue;
    }
    texts.push({ size: fitted.size, lines: fitted.lines.map((line) => line.text) });
    letters += lettersOf(text, fitted);
    problems.push(...beyond(card, text.box, n));
    if (said !== '' && hardToRead(card, text))
      problems.push({
        text: n,
        stops: false,
        sentence: 'Its colour stands out too little from the ground.',
        mend: 'Choose a darker or a lighter one.',
      });
  }
  const { width, height } = card;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${groundOf(card, needs)}${areasOf(card)}${picturesOf(card, needs)}${letters}</svg>`;
  return { svg, texts, problems };
}

function told(
  said: string,
  { from, most }: CardText,
  fitted: Fitted & { ok: false },
): { sentence: string; mend: string } {
  const short = said.length > 60 ? `${said.slice(0, 58)}…` : said;
  return fitted.why === 'too long'
    ? {
        sentence: `‘${short}’ does not fit its box at ${from} px in ${most === 1 ? 'one line' : `${most} lines`}.`,
        mend: 'Make the box larger, allow smaller letters or more lines, or shorten the text.',
      }
    : {
        sentence: `‘${fitted.letter}’ in ‘${short}’ stands in none of the faces that come with Grivo.`,
        mend: 'Leave it out, or use another card for texts in this script.',
      };
}

function beyond({ width, height }: CardDocument, box: CardBox, text: number): CardProblem[] {
  if (box.x >= 0 && box.y >= 0 && box.x + box.width <= width && box.y + box.height <= height) return [];
  return [
    {
      text,
      stops: false,
      sentence: 'Its box stands past the edge of the card.',
      mend: 'Move it in, or make it smaller.',
    },
  ];
}

/** Whether a text cannot be told from both ends of the ground; over a picture nobody knows. */
function hardToRead({ ground, areas }: CardDocument, { colour, box }: CardText): boolean {
  const under = areas.findLast(
    ({ box: area }) =>
      area.x <= box.x &&
      area.y <= box.y &&
      area.x + area.width >= box.x + box.width &&
      area.y + area.height >= box.y + box.height,
  );
  if (under) return contrastOf(colour, under.colour) < LEAST_CONTRAST;
  if (ground.picture && ground.picture.veil < 50) return false;
  return [ground.colour, ground.to ?? ground.colour].some((one) => contrastOf(colour, one) < LEAST_CONTRAST);
}

const TOWARDS = { down: 'x2="0" y2="1"', across: 'x2="1" y2="0"', corner: 'x2="1" y2="1"' } as const;

function groundOf({ width, height, ground }: CardDocument, { picture }: CardNeeds): string {
  const all = `width="${width}" height="${height}"`;
  const paint = ground.to === null ? ground.colour : 'url(#ground)';
  const gradient =
    ground.to === null
      ? ''
      : `<defs><linearGradient id="ground" x1="0" y1="0" ${TOWARDS[ground.towards]}><stop offset="0" stop-color="${ground.colour}"/><stop offset="1" stop-color="${ground.to}"/></linearGradient></defs>`;
  const shown = ground.picture ? picture(ground.picture.file) : null;
  if (!ground.picture || shown === null) return `${gradient}<rect ${all} fill="${paint}"/>`;
  return `${gradient}<rect ${all} fill="${paint}"/><image ${all} preserveAspectRatio="xMidYMid slice" href="${shown}"/><rect ${all} fill="${paint}" fill-opacity="${ground.picture.veil / 100}"/>`;
}

const boxOf = ({ x, y, width, height }: CardBox): string => `x="${x}" y="${y}" width="${width}" height="${height}"`;

const areasOf = ({ areas }: CardDocument): string =>
  areas.map(({ colour, box }) => `<rect ${boxOf(box)} fill="${colour}"/>`).join('');

function picturesOf({ pictures }: CardDocument, { picture }: CardNeeds): string {
  return pictures
    .map(({ file, fills, round, box }, n) => {
      const shown = picture(file);
      if (shown === null) return '';
      const clip = round
        ? `<clipPath id="round${n}"><ellipse cx="${box.x + box.width / 2}" cy="${box.y + box.height / 2}" rx="${box.width / 2}" ry="${box.height / 2}"/></clipPath>`
        : '';
      return `${clip}<image ${boxOf(box)} preserveAspectRatio="xMidYMid ${fills ? 'slice' : 'meet'}" href="${shown}"${round ? ` clip-path="url(#round${n})"` : ''}/>`;
    })
    .join('');
}

function lettersOf({ box, colour }: CardText, { size, lines }: Fitted & { ok: true }): string {
  if (lines.length === 0) return '';
  const paths = lines.map(
    ({ set, x, y }) =>
      `<path transform="translate(${px(box.x + x)} ${px(box.y + y)}) scale(${size / 1_000})" d="${set.outline}"/>`,
  );
  return `<g fill="${colour}">${paths.join('')}</g>`;
}
