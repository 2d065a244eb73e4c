import { askedAs } from '../keyword/aspects.ts';
import { languageName } from '../procedure/languages.ts';
import { listWords, minutesWords, plural } from '../procedure/sentence.ts';
import type { Failure } from './failure.ts';
import { MISTAKES } from './mistakes.ts';

/** A failure for people: a short problem, the sentence that says what happened, and what mends it. */
export interface FailureWords {
  problem: string;
  sentence: string;
  mend: string;
}

/** What a way to a blog may lack, in words. */
const CANNOT: Readonly<Record<string, string>> = {
  drafts: 'drafts',
  update: 'changing a post',
  withdraw: 'taking a post back',
  find: 'looking for a post',
  media: 'pictures',
  categories: 'categories',
  'list categories': 'telling its categories',
  review: 'posts that wait for its own review',
  private: 'private posts',
  pages: 'standing pages',
  replies: 'switching replies on or off',
  properties: 'properties of its own',
};

/** Turns the id of a service, blog or limit into the name people gave it. */
type NameOf = (id: string) => string;

/** What is said of each. */
const WORDS: {
  readonly [Code in Failure['code']]: (failure: Extract<Failure, { code: Code }>, nameOf: NameOf) => FailureWords;
} = {
  'service-busy': (failure, nameOf) => ({
    problem: 'Asked us to wait',
    sentence: `${nameOf(failure.service)} asks to wait before the next call.`,
    mend: 'Nothing to do; it is tried again automatically.',
  }),
  'service-unreachable': (failure, nameOf) => ({
    problem: 'No answer',
    sentence: `${nameOf(failure.service)} did not answer: ${failure.detail}.`,
    mend: 'Nothing to do; it is tried again automatically.',
  }),
  'service-broken': (failure, nameOf) => ({
    problem: 'Answered with an error',
    sentence: `${nameOf(failure.service)} answered ${failure.status}.`,
    mend: 'Nothing to do; it is tried again automatically.',
  }),
  'reply-unusable': (failure, nameOf) => ({
    problem: 'Reply could not be read',
    sentence: `The reply of ${nameOf(failure.service)} could not be used: ${failure.problem}.`,
    mend: 'Nothing to do; it is asked again.',
  }),
  'outcome-unknown': (failure, nameOf) => ({
    problem: 'Result not known yet',
    sentence: `The connection to ${nameOf(failure.service)} broke before it said whether ‘${failure.action}’ was done.`,
    mend: 'Nothing to do; Grivo looks there before it repeats anything.',
  }),
  'key-refused': (failure, nameOf) => ({
    problem: 'Key refused',
    sentence: `${nameOf(failure.service)} refused the key (${failure.status})${quoted(failure.said)}.`,
    mend: 'Paste a valid key under Settings or Blogs, test it, then let the briefs go on.',
  }),
  'credit-used-up': (failure, nameOf) => ({
    problem: 'Credit used up',
    sentence: `The credit at ${nameOf(failure.service)} is used up${quoted(failure.said)}.`,
    mend: 'Top the account up there, then let the briefs go on.',
  }),
  'service-refuses': (failure, nameOf) => ({
    problem:
      failure.because === 'the model'
        ? 'Model refused'
        : failure.because === 'the shape'
          ? 'Form of reply refused'
          : 'Request refused',
    sentence:
      failure.because === 'the model'
        ? `${nameOf(failure.service)} does not have that model (${failure.status})${quoted(failure.said)}.`
        : failure.because === 'the shape'
          ? `${nameOf(failure.service)} cannot reply in the form that was asked for (${failure.status})${quoted(failure.said)}.`
          : `${nameOf(failure.service)} refused the request (${failure.status})${quoted(failure.said)}.`,
    mend:
      failure.because === 'the model'
        ? 'Enter a model it has under Settings, test it, then let the briefs go on.'
        : failure.because === 'the shape'
          ? 'Choose a model that can reply with JSON by a schema, test it, then let the briefs go on.'
          : 'Change its model or address under Settings by what it says, test it, then let the briefs go on.',
  }),
  declined: (failure, nameOf) => ({
    problem: 'Declined',
    sentence: `${nameOf(failure.service)} will not write this${quoted(failure.said)}.`,
    mend: 'Change the subject or the instruction, or set the brief aside.',
  }),
  'service-down': (failure, nameOf) => ({
    problem: 'Service down',
    sentence: `${nameOf(failure.service)} failed ${failure.tries} times running: ${failure.detail}.`,
    mend: 'Test the service; when it answers again, let the briefs go on.',
  }),
  'replies-unusable': (failure, nameOf) => ({
    problem: 'Replies cannot be read',
    sentence: `${nameOf(failure.service)} answered ${failure.tries} times with something that cannot be used: ${failure.problem}.`,
    mend: 'Test the service or choose another model, then let the briefs go on.',
  }),
  'address-refused': (failure) => ({
    problem: 'Address refused',
    sentence: `Grivo does not call ${failure.address}: ${failure.reason}.`,
    mend: /private network/.test(failure.reason)
      ? 'Correct the address; where it is meant, whoever runs Grivo allows its origin in GRIVO_ALLOWED_ORIGINS.'
      : 'Correct the address.',
  }),
  'blog-refuses': (failure, nameOf) => ({
    problem: 'Blog refuses',
    sentence: `${nameOf(failure.service)} answered ${failure.status}: ${failure.said}.`,
    mend: 'Test the blog; it says what the secret may do and what to change.',
  }),
  'outcome-unfindable': (failure, nameOf) => ({
    problem: 'Nobody can say what happened',
    sentence: `Whether ‘${failure.action}’ reached ${nameOf(failure.service)} cannot be found out.`,
    mend: 'Look there yourself, then say whether it is done or must be repeated.',
  }),
  overtaken: (failure, nameOf) => ({
    problem: 'Overtaken',
    sentence: `Something else was asked of this post on ${nameOf(failure.service)} before ‘${failure.action}’ was sent.`,
    mend: 'It is looked at again by itself.',
  }),
  'changed-outside': (failure, nameOf) => ({
    problem: 'Changed on the blog',
    sentence: `Somebody changed the post on ${nameOf(failure.service)} itself; it is not written over.`,
    mend: 'Look at what was changed there, and choose what stays.',
  }),
  'blog-cannot': (failure, nameOf) => ({
    problem: 'Blog cannot do that',
    sentence: `The way posts go to ${nameOf(failure.service)} has no means for ${CANNOT[failure.what] ?? failure.what}.`,
    mend: 'Let the step do without it, or connect the blog another way.',
  }),
  'no-such-blog': ({ by, said }) => ({
    problem: by === 'name' ? 'No blog of that name' : 'No blog of that language',
    sentence: by === 'name' ? `No blog is called ‘${said}’.` : `No blog here is in ${languageName(said)}.`,
    mend:
      by === 'name'
        ? 'Mend the name where it comes from, as in the row of the sheet, or connect a blog of that name.'
        : 'Connect a blog in that language, or let the step publish to a blog of your choice.',
  }),
  'no-service': (failure) => ({
    problem: `No ${failure.role}`,
    sentence: `There is no ${failure.role} to call.`,
    mend:
      failure.role === 'keyword service'
        ? 'Connect one under Settings, then look again.'
        : `Connect ${/^[aeiou]/.test(failure.role) ? 'an' : 'a'} ${failure.role} under Settings, then let the briefs go on.`,
  }),
  'limit-reached': (failure) => ({
    problem: 'Limit reached',
    sentence: `The next call could cost ${money(failure.neededMicros)} and would pass the limit of ${money(failure.capMicros)} for ${failure.scope === 'article' ? 'one article' : `the ${failure.scope}`}.`,
    mend:
      failure.scope === 'article'
        ? 'Raise the limit for an article, then let the brief go on.'
        : `Raise the limit, or wait: it goes on by itself with the next ${failure.scope}.`,
  }),
  'no-slots': (failure, nameOf) => ({
    problem: 'No slots',
    sentence: `The cadence of ${nameOf(failure.blog)} makes no slots in the next two years.`,
    mend: 'Change the cadence so that it has days and hours to publish on.',
  }),
  'nothing-found': (failure) => ({
    problem: 'Nothing found',
    sentence: nothingFound(failure),
    mend: 'Word the subject differently, look up more pages, or set the brief aside.',
  }),
  'ours-already': (failure) => ({
    problem: 'A second article on one subject',
    sentence: oursAlready(failure),
    mend: 'Let it go on if the blog is to have both, or set the brief aside.',
  }),
  'field-missing': (failure) => ({
    problem: 'Field missing',
    sentence: `The step needs ‘${failure.field}’, and no step before it gave one.`,
    mend: 'Add a step that gives it, or take the step out.',
  }),
  'too-little-material': (failure) => ({
    problem: 'Too little material',
    sentence: `The sources have material for about ${plural(failure.words, 'word')}; ${failure.wanted} were asked for.`,
    mend: 'Ask for fewer words, look up more pages, or set the brief aside.',
  }),
  'no-figure': (failure) => ({
    problem: 'No figure in the reply',
    sentence: `The writer was asked for a figure twice and gave none: ‘${failure.said}’.`,
    mend: 'Ask for it more clearly in the step, or decide by hand.',
  }),
  'cannot-work-out': (failure) => ({
    problem: 'Cannot be worked out',
    sentence: `The expression failed: ${failure.problem}.`,
    mend: 'Change the expression, or the field it works on.',
  }),
  'cannot-copy': (failure) => ({
    problem: `No ${failure.form}`,
    sentence: `The article cannot be kept as ${failure.form}: ${failure.problem}.`,
    mend: `Keep it in another form, as ${failure.form === 'Markdown' ? 'Word' : 'Markdown'}, then let the brief go on.`,
  }),
  'page-unreadable': (failure) => ({
    problem: 'Page cannot be read',
    sentence: `${failure.address} gave nothing readable: ${failure.reason}.`,
    mend: 'Correct the address, or take the step out.',
  }),
  'not-taken': (failure) => ({
    problem: 'Mail not taken',
    sentence: `The mail server does not take mail to ${failure.to}: ${failure.said}.`,
    mend: 'Correct the address, then let the brief go on.',
  }),
  'language-unknown': (failure) => ({
    problem: 'Language not known',
    sentence: `‘${failure.language}’ is not a language Grivo can translate an article into.`,
    mend: 'Name it in English, as German or French.',
  }),
  'translation-incomplete': (failure) => ({
    problem: 'Translation incomplete',
    sentence: `The text in ${languageName(failure.language)} is incomplete: ${failure.problem}.`,
    mend: 'Let it go on to translate it again, or choose another writer.',
  }),
  'routine-missing': (failure) => ({
    problem: 'Routine missing',
    sentence: `The routine ‘${failure.routine}’ is not there.`,
    mend: 'Choose another routine, or take the step out.',
  }),
  'source-unreadable': (failure, nameOf) => ({
    problem: 'Could not be read',
    sentence: `${nameOf(failure.source)}: ${failure.reason}.`,
    mend: failure.mend,
  }),
  'nothing-said': (failure) => ({
    problem: 'Nothing to hear',
    sentence: `The recording ${failure.recording} gave no text: ${failure.reason}.`,
    mend: 'Listen to it; give another recording, or set this one aside.',
  }),
  'no-column': (failure) => ({
    problem: 'No such column',
    sentence: `The sheet at ${failure.address} has no column ‘${failure.column}’; ${failure.there.length === 0 ? 'it has none at all' : `it has ${failure.there.map((name) => `‘${name}’`).join(', ')}`}.`,
    mend: 'Put the column into the sheet, or name another in the step, then let the brief go on.',
  }),
  'no-captions': (failure) => ({
    problem: 'No captions',
    sentence:
      failure.there.length === 0
        ? `The video at ${failure.address} has no captions.`
        : `The video at ${failure.address} has no captions in ${languageName(failure.language)}; it has them in ${failure.there.map(languageName).join(', ')}.`,
    mend:
      failure.there.length === 0
        ? 'Give it captions there, or set this one aside.'
        : 'Choose one of these languages for the procedure, or set this one aside.',
  }),
  'stopped-by-hand': (failure) => ({
    problem: 'Stopped by hand',
    sentence: `${failure.person} stopped it.`,
    mend: 'Let it go on when you like; nothing is lost.',
  }),
  'took-too-long': (failure) => ({
    problem: 'Took too long',
    sentence: `It was in work for longer than the ${minutesWords(failure.minutes)} its pipeline gives a brief.`,
    mend: 'See what it was waiting for. Let it go on for as long again, or give briefs more time where the pipeline takes them.',
  }),
  'not-set-up': (failure) => ({
    problem: `No ${failure.what}`,
    sentence: `This installation has no ${failure.what}.`,
    mend: 'Set it in the environment (the operator’s page says how), start again, then let the briefs go on.',
  }),
  defect: (failure) => ({
    problem: 'Error in Grivo',
    sentence: `Grivo failed at this step: ${failure.message}.`,
    mend: 'Try it again; if it fails again, report it with the id of the step.',
  }),
};

/**
 * The words of a failure.
 * @param nameOf turns the id of a service, blog or limit into the name people gave it
 */
export function wordsOf(failure: Failure, nameOf: NameOf = (id) => id): FailureWords {
  const says = WORDS[failure.code] as (failure: Failure, nameOf: NameOf) => FailureWords;
  const words = says(failure, nameOf);
  const mistake = 'mistake' in failure && failure.mistake ? MISTAKES[failure.mistake] : null;
  if (!mistake || !('service' in failure)) return words;
  const said = 'said' in failure ? quoted(failure.said) : '';
  return { ...words, sentence: `${nameOf(failure.service)} ${mistake.sentence}${said}.`, mend: mistake.mend };
}

/** What mends a failure that a step meets and Grivo deals with by itself. */
const BY_ITSELF = /^Nothing to do; it is (?:tried|asked) again/;

/** A failure of what somebody pressed, for them: nothing presses it again by itself. */
export function pressedWords(...of: Parameters<typeof wordsOf>): FailureWords {
  const words = wordsOf(...of);
  return BY_ITSELF.test(words.mend) ? { ...words, mend: 'Try again in a moment.' } : words;
}

/** Money for people, from millionths. */
function money(micros: number): string {
  return `${(micros / 1_000_000).toFixed(2)} €`;
}

/** What was found on a subject that is too little to write from: how many pages, and what none of them says. */
export function nothingFound({
  subject,
  pages = 0,
  fitting = 0,
  lacking = [],
  unanswered = [],
}: Omit<Extract<Failure, { code: 'nothing-found' }>, 'code'>): string {
  if (pages === 0) return `No page was found on ‘${subject}’.`;
  const without = notSaid({ lacking, unanswered });
  const isUnanswered = fitting > 0 && without === '';
  const told = pages === 1 ? ofOnePage(fitting === 1, isUnanswered) : ofPages(pages, fitting, isUnanswered);
  return `Nothing found that answers ‘${subject}’: ${told}.${without === '' ? '' : ` ${without}`}`;
}

const ofOnePage = (speaks: boolean, isUnanswered: boolean): string =>
  `the one page found ${speaks ? 'speaks of it' : 'says nothing of it'}${isUnanswered ? ', but does not answer it' : ''}`;

function ofPages(pages: number, fitting: number, isUnanswered: boolean): string {
  const many = fitting === pages ? `all ${fitting} speak` : `only ${fitting} ${fitting === 1 ? 'speaks' : 'speak'}`;
  const speaks = fitting === 0 ? 'none speaks' : many;
  return `of ${pages} pages found, ${speaks} of it${isUnanswered ? ', and none answers it' : ''}`;
}

/** That something else of ours is on a subject already, and what that is. */
export function oursAlready({ subject, title }: Omit<Extract<Failure, { code: 'ours-already' }>, 'code'>): string {
  return title === null
    ? `Another brief of this blog is on the same subject: ‘${subject}’.`
    : `An article of ours is on the same subject already: ‘${title}’.`;
}

/** What no page that was found says: words of the subject, and how it asks. Empty where nothing is missing. */
export function notSaid({
  lacking,
  unanswered,
}: {
  lacking: readonly string[];
  unanswered: readonly string[];
}): string {
  const words =
    lacking.length === 0
      ? ''
      : `Nothing is said of ${listWords(
          lacking.map((word) => `‘${word}’`),
          '',
        )}.`;
  const asked = unanswered.flatMap((aspect) => askedAs(aspect) ?? []);
  const ways = asked.length === 0 ? '' : `None says ${asked.join(', nor ')}.`;
  return [words, ways].filter((one) => one !== '').join(' ');
}

/** What a service said, in its own words. */
function quoted(said: string | undefined): string {
  return said ? `: “${said.replace(/\.$/, '')}”` : '';
}
