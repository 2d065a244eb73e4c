import type { BlogMistake } from './mistakes.ts';

/**
 * Everything that is expected to go wrong, as one union. `code` names what happened, the other fields say where and with
 * which figures; the sentences stand in `words.ts`. What is not in this union is a defect.
 */
export type Failure =
  // Passing: tried again by itself.
  | { code: 'service-busy'; service: string; retryAfterMs: number | null }
  | { code: 'service-unreachable'; service: string; detail: string; mistake?: BlogMistake }
  | { code: 'service-broken'; service: string; status: number; mistake?: BlogMistake }
  | { code: 'reply-unusable'; service: string; problem: string; mistake?: BlogMistake }
  | { code: 'outcome-unknown'; service: string; action: string }
  /** Something else was asked of the same meanwhile. */
  | { code: 'overtaken'; service: string; action: string }
  // Needs mending: stops until a person has changed something outside the brief.
  | { code: 'key-refused'; service: string; status: number; said?: string; mistake?: BlogMistake }
  | { code: 'credit-used-up'; service: string; said?: string }
  /** It answers, and will not do what it is asked: in its own words. */
  | {
      code: 'service-refuses';
      service: string;
      status: number;
      because: 'the model' | 'the shape' | 'the request';
      said: string;
    }
  | { code: 'service-down'; service: string; detail: string; tries: number }
  | { code: 'replies-unusable'; service: string; problem: string; tries: number }
  | { code: 'address-refused'; address: string; reason: string }
  | { code: 'blog-refuses'; service: string; status: number; said: string; mistake?: BlogMistake }
  | { code: 'outcome-unfindable'; service: string; action: string }
  /** Somebody else changed the post there; it is not written over. */
  | { code: 'changed-outside'; service: string }
  /** The way to this blog has no means for it. */
  | { code: 'blog-cannot'; service: string; what: string }
  /** No blog is called so, or has the language. */
  | { code: 'no-such-blog'; by: 'name' | 'language'; said: string }
  | {
      code: 'no-service';
      role: 'writer' | 'illustrator' | 'look-up' | 'video host' | 'keyword service' | 'transcriber' | 'picture library';
    }
  | { code: 'limit-reached'; scope: string; start: string; capMicros: number; neededMicros: number }
  | { code: 'no-slots'; blog: string }
  // Refused on account of the content: as the procedure says.
  | {
      code: 'nothing-found';
      subject: string;
      pages?: number;
      fitting?: number;
      lacking?: string[];
      /** Ways of asking that none of them answers. */
      unanswered?: string[];
    }
  /** Another brief of the same blog is on the subject; `title` of its article, where it has one. */
  | { code: 'ours-already'; subject: string; title: string | null }
  | { code: 'field-missing'; field: string }
  | { code: 'too-little-material'; words: number; wanted: number }
  | { code: 'no-figure'; said: string }
  /** The writer will not write this. */
  | { code: 'declined'; service: string; said: string }
  | { code: 'cannot-work-out'; problem: string }
  | { code: 'cannot-copy'; form: string; problem: string }
  | { code: 'page-unreadable'; address: string; reason: string }
  | { code: 'source-unreadable'; source: string; reason: string; mend: string }
  | { code: 'nothing-said'; recording: string; reason: string }
  | { code: 'no-column'; address: string; column: string; there: string[] }
  | { code: 'no-captions'; address: string; language: string; there: string[] }
  | { code: 'not-taken'; to: string; said: string }
  | { code: 'language-unknown'; language: string }
  | { code: 'translation-incomplete'; language: string; problem: string }
  | { code: 'routine-missing'; routine: string }
  | { code: 'stopped-by-hand'; person: string }
  | { code: 'took-too-long'; minutes: number }
  /** Something only the environment of the installation can give. */
  | { code: 'not-set-up'; what: string }
  // Ours.
  | { code: 'defect'; message: string; stack: string };

export type FailureCode = Failure['code'];

/** What the engine does about a failure. */
export type FailureClass = 'transient' | 'mend' | 'refused' | 'defect';

const CLASS: Record<FailureCode, FailureClass> = {
  'service-busy': 'transient',
  'service-unreachable': 'transient',
  'service-broken': 'transient',
  'reply-unusable': 'transient',
  'outcome-unknown': 'transient',
  overtaken: 'transient',
  'key-refused': 'mend',
  'credit-used-up': 'mend',
  'service-refuses': 'mend',
  'service-down': 'mend',
  'replies-unusable': 'mend',
  'address-refused': 'mend',
  'blog-refuses': 'mend',
  'outcome-unfindable': 'mend',
  'changed-outside': 'mend',
  'blog-cannot': 'mend',
  'no-such-blog': 'mend',
  'no-service': 'mend',
  'limit-reached': 'mend',
  'no-slots': 'mend',
  'nothing-found': 'refused',
  'ours-already': 'refused',
  'field-missing': 'refused',
  'too-little-material': 'refused',
  'no-figure': 'refused',
  declined: 'refused',
  'cannot-work-out': 'refused',
  'cannot-copy': 'refused',
  'page-unreadable': 'refused',
  'source-unreadable': 'refused',
  'nothing-said': 'refused',
  'no-column': 'refused',
  'no-captions': 'refused',
  'not-taken': 'refused',
  'language-unknown': 'refused',
  'translation-incomplete': 'refused',
  'routine-missing': 'refused',
  'stopped-by-hand': 'refused',
  'took-too-long': 'refused',
  'not-set-up': 'mend',
  defect: 'defect',
};

export function classOf(failure: Failure): FailureClass {
  return CLASS[failure.code];
}

/** How often a passing failure is tried before it counts as lasting. */
export const TRIES: { readonly [code in FailureCode]?: number } = {
  'service-busy': 12,
  'service-unreachable': 5,
  'service-broken': 5,
  'reply-unusable': 3,
  'outcome-unknown': 8,
  overtaken: 10,
};

/**
 * The lasting failure a passing one becomes after its last try, or null while it may be tried again.
 * @param tries attempts made so far, this one included
 */
export function lasting(failure: Failure, tries: number): Failure | null {
  const most = TRIES[failure.code];
  if (most === undefined || tries < most) return null;
  switch (failure.code) {
    case 'service-busy':
      return { code: 'service-down', service: failure.service, detail: 'it keeps asking us to wait', tries };
    case 'service-unreachable':
      return { code: 'service-down', service: failure.service, detail: failure.detail, tries };
    case 'service-broken':
      return { code: 'service-down', service: failure.service, detail: `it answers ${failure.status}`, tries };
    case 'reply-unusable':
      return { code: 'replies-unusable', service: failure.service, problem: failure.problem, tries };
    case 'outcome-unknown':
      return {
        code: 'service-down',
        service: failure.service,
        detail: `it never says whether ‘${failure.action}’ was done`,
        tries,
      };
    case 'overtaken':
      return {
        code: 'service-down',
        service: failure.service,
        detail: `something else is asked of the same post again and again before ‘${failure.action}’`,
        tries,
      };
    default:
      return null;
  }
}

/**
 * Milliseconds to wait before the next try: doubling from a quarter of a second to five minutes, spread by half so that
 * many that failed together do not come back together. A service that says how long to wait is obeyed.
 */
export function backoffMs(failure: Failure, tries: number, random: () => number): number {
  if (failure.code === 'service-busy' && failure.retryAfterMs !== null) {
    return failure.retryAfterMs + Math.floor(random() * 250);
  }
  const grown = Math.min(300_000, 250 * 2 ** (tries - 1));
  return Math.floor(grown * (0.5 + random()));
}

/** The one cause an incident stands for, or null when the failure concerns a single brief only. */
export function causeOf(failure: Failure): { service: string; cause: FailureCode } | null {
  if (classOf(failure) !== 'mend') return null;
  if (failure.code === 'not-set-up') return { service: failure.what, cause: failure.code };
  if (failure.code === 'no-service') return { service: failure.role, cause: failure.code };
  // The limit of one article stops that one alone; those of a day or a month stop all, until it is over.
  if (failure.code === 'limit-reached')
    return failure.scope === 'article' ? null : { service: `${failure.scope} ${failure.start}`, cause: failure.code };
  if (failure.code === 'no-slots') return { service: failure.blog, cause: failure.code };
  if (failure.code === 'outcome-unfindable' || failure.code === 'blog-cannot' || failure.code === 'changed-outside')
    return null;
  return 'service' in failure ? { service: failure.service, cause: failure.code } : null;
}
