/** What items bring along beside their columns. */
const OF_ITEMS = [
  'subject',
  'row',
  'sheet',
  'link',
  'range',
  'source',
  'video',
  'chapters',
  'holds',
  'looked',
  'values',
  'asked',
] as const;

/** What steps give, the title left out: one that an item has stays its title. Held against the kinds of steps by a test. */
export const OF_STEPS = [
  'passages',
  'gist',
  'facts',
  'judgement',
  'aim',
  'outline',
  'notes',
  'article',
  'picture',
  'charts',
  'videos',
  'links',
  'put',
  'check',
  'publication',
  'kept',
  'told',
] as const;

/**
 * Names that mean something else to a brief. They stand here by themselves, since forms know them that know nothing of
 * steps.
 */
export const RESERVED_FIELDS: ReadonlySet<string> = new Set([...OF_ITEMS, ...OF_STEPS]);
