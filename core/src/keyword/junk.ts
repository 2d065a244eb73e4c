/** Why a part of a paste is no phrase. */
export type JunkReason =
  | 'heading'
  | 'error cell'
  | 'number'
  | 'one letter'
  | 'address'
  | 'mail address'
  | 'total'
  | 'note to self';

/** What stands before a phrase in a list: a bullet, a box, a number with a stop. */
const LEADS = /^(?:[-–—•*·▪►>✓☐]+\s+|\[[ xX]?\]\s*|\(?\d{1,4}[.):]\s+|#{1,6}\s+)/u;
/** A phrase may have a few of them, as '- 1. …'. */
const MOST_LEADS = 3;

/** A part of a paste without the marks of a list and of markup around its words. */
export function unmarked(raw: string): string {
  let text = raw.trim();
  for (let i = 0; i < MOST_LEADS && LEADS.test(text); i++) text = text.replace(LEADS, '');
  return text
    .replace(/<\/?[a-z][^<>]{0,300}>/gi, ' ')
    .replace(/!?\[([^[\]]{1,300})\]\([^()\s]{1,1000}\)/g, '$1')
    .replace(/[*_]{2,}|`/g, '')
    .trim();
}

/** A paste with the signs that markup writes as words; their semicolons would part it. */
export function withoutEntities(paste: string): string {
  return paste.replace(/&(amp|lt|gt|quot|nbsp|#39);/g, (_, name: string) => ENTITIES[name]!);
}

const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', nbsp: ' ', '#39': '’' };

/** Names under which tools and people head the column of phrases, and what stands beside it. */
const HEADS =
  /^(?:keywords?|key ?phrases?|phrases?|quer(?:y|ies)|search terms?|top queries|terms?|topics?|subjects?|titles?|suchbegriffe?|stichw(?:ort|örter)|thema|themen|palabras? clave|mots?-clés?)$/i;
const BESIDE =
  /^(?:(?:search |avg\.? |average |monthly )*(?:volume|searches)|impressions|clicks|difficulty|competition|kd|kd %|cpc|position|rank|trend|intent|url|notes?|suchvolumen|schwierigkeit)$/i;

const ERROR_CELL =
  /^(?:#(?:ref|n\/a|value|name\??|div\/0|null|num|wert|bezug|nv|spill|error)[!?]?|n\/?a|n\.a\.|null|none|undefined|nan|tbd|tba)$/i;
const NUMBER = /^[\d\s.,:%€$£+/-]+$/;
const ADDRESS =
  /^(?:https?:\/\/\S+|www\.\S+|[a-z\d-]+(?:\.[a-z\d-]+)*\.(?:com|org|net|info|io|eu|de|at|ch|uk|ie|fr|nl|es|it|pl|example)(?:\/\S*)?)$/i;
const MAIL = /^(?:mailto:)?[^\s@]+@[^\s@][^\s.@]*\.[^\s@]+$/i;
const TOTAL = /^(?:(?:grand |sub-?)?totals?|sum|sum of .{1,40}|gesamt|summe)[\s:\d.,]*$/i;
const NOTE =
  /^(?:to-?do|to do|fixme|note to self|nb|n\.b\.|remember to|don’t forget|don't forget|ask \S+ (?:about|if|whether|for)|check with|talk to|wait for)(?=[\s:,]|$)|(?:\?\?|!!|\?!)$|\((?:maybe|delete|remove|skip|later|not sure|unsure)[^()]{0,60}\)$/i;

/** Whether the first line of a paste heads a column of phrases: then its cells are no phrases. */
export function isHeading(firstCell: string): boolean {
  return HEADS.test(firstCell);
}

/** Why a part of a paste is no phrase anybody searches for; null when it may be one. */
export function junkIn(phrase: string, heads: boolean): JunkReason | null {
  if (heads && (HEADS.test(phrase) || BESIDE.test(phrase))) return 'heading';
  if (ERROR_CELL.test(phrase)) return 'error cell';
  if (MAIL.test(phrase)) return 'mail address';
  if (ADDRESS.test(phrase)) return 'address';
  if (NUMBER.test(phrase)) return 'number';
  if (TOTAL.test(phrase)) return 'total';
  if (NOTE.test(phrase)) return 'note to self';
  // A script that writes a word in one sign has no letters to count.
  return [...phrase].length === 1 && /[\p{Script=Latin}\p{Script=Cyrillic}\p{Script=Greek}]/u.test(phrase)
    ? 'one letter'
    : null;
}
