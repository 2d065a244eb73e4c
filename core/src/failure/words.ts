import { listWords, minutesWords } from '../procedure/sentence.ts';
import type { Failure } from './failure.ts';

/** A failure for people: a short problem, the sentence that says what happened, and what mends it. */
export interface FailureWords {
  problem: string;
  sentence: string;
  mend: string;
}

/**
 * The words of a failure.
 * @param nameOf turns the id of a service, blog or limit into the name people gave it
 */
export function wordsOf(failure: Failure, nameOf: (id: string) => string = (id) => id): FailureWords {
  const say = (problem: string, sentence: string, mend: string): FailureWords => ({ problem, sentence, mend });
  switch (failure.code) {
    case 'service-busy':
      return say(
        'Asked us to wait',
        `${nameOf(failure.service)} asks to wait before the next call.`,
        'Nothing to do; it is tried again automatically.',
      );
    case 'service-unreachable':
      return say(
        'No answer',
        `${nameOf(failure.service)} did not answer: ${failure.detail}.`,
        'Nothing to do; it is tried again automatically.',
      );
    case 'service-broken':
      return say(
        'Answered with an error',
        `${nameOf(failure.service)} answered ${failure.status}.`,
        'Nothing to do; it is tried again automatically.',
      );
    case 'reply-unusable':
      return say(
        'Reply could not be read',
        `The reply of ${nameOf(failure.service)} could not be used: ${failure.problem}.`,
        'Nothing to do; it is asked again.',
      );
    case 'outcome-unknown':
      return say(
        'Result not known yet',
        `The connection to ${nameOf(failure.service)} broke before it said whether ‘${failure.action}’ was done.`,
        'Nothing to do; Grivo looks there before it repeats anything.',
      );
    case 'key-refused':
      return say(
        'Key refused',
        `${nameOf(failure.service)} refused the key (${failure.status})${quoted(failure.said)}.`,
        'Paste a valid key under Settings or Blogs, test it, then let the briefs go on.',
      );
    case 'credit-used-up':
      return say(
        'Credit used up',
        `The credit at ${nameOf(failure.service)} is used up${quoted(failure.said)}.`,
        'Top the account up there, then let the briefs go on.',
      );
    case 'service-refuses':
      return say(
        failure.because === 'the model'
          ? 'Model refused'
          : failure.because === 'the shape'
            ? 'Form of reply refused'
            : 'Request refused',
        failure.because === 'the model'
          ? `${nameOf(failure.service)} does not have that model (${failure.status})${quoted(failure.said)}.`
          : failure.because === 'the shape'
            ? `${nameOf(failure.service)} cannot reply in the form that was asked for (${failure.status})${quoted(failure.said)}.`
            : `${nameOf(failure.service)} refused the request (${failure.status})${quoted(failure.said)}.`,
        failure.because === 'the model'
          ? 'Enter a model it has under Settings, test it, then let the briefs go on.'
          : failure.because === 'the shape'
            ? 'Choose a model that can reply with JSON by a schema, test it, then let the briefs go on.'
            : 'Change its model or address under Settings by what it says, test it, then let the briefs go on.',
      );
    case 'declined':
      return say(
        'Declined',
        `${nameOf(failure.service)} will not write this${quoted(failure.said)}.`,
        'Change the subject or the instruction, or set the brief aside.',
      );
    case 'service-down':
      return say(
        'Service down',
        `${nameOf(failure.service)} failed ${failure.tries} times running: ${failure.detail}.`,
        'Test the service; when it answers again, let the briefs go on.',
      );
    case 'replies-unusable':
      return say(
        'Replies cannot be read',
        `${nameOf(failure.service)} answered ${failure.tries} times with something that cannot be used: ${failure.problem}.`,
        'Test the service or choose another model, then let the briefs go on.',
      );
    case 'address-refused':
      return say(
        'Address refused',
        `Grivo does not call ${failure.address}: ${failure.reason}.`,
        /private network/.test(failure.reason)
          ? 'Correct the address; where it is meant, whoever runs Grivo allows its origin in GRIVO_ALLOWED_ORIGINS.'
          : 'Correct the address.',
      );
    case 'blog-refuses':
      return say(
        'Blog refuses',
        `${nameOf(failure.service)} answered ${failure.status}: ${failure.said}.`,
        'Test the blog; it says what the secret may do and what to change.',
      );
    case 'outcome-unfindable':
      return say(
        'Nobody can say what happened',
        `Whether ‘${failure.action}’ reached ${nameOf(failure.service)} cannot be found out.`,
        'Look there yourself, then say whether it is done or must be repeated.',
      );
    case 'no-service':
      return say(
        `No ${failure.role}`,
        `There is no ${failure.role} to call.`,
        failure.role === 'keyword service'
          ? 'Connect one under Settings, then look again.'
          : `Connect a ${failure.role} under Settings, then let the briefs go on.`,
      );
    case 'limit-reached':
      return say(
        'Limit reached',
        `The next call could cost ${money(failure.neededMicros)} and would pass the limit of ${money(failure.capMicros)} for ${failure.scope === 'article' ? 'one article' : `the ${failure.scope}`}.`,
        failure.scope === 'article'
          ? 'Raise the limit for an article, then let the brief go on.'
          : `Raise the limit, or wait: it goes on by itself with the next ${failure.scope}.`,
      );
    case 'no-slots':
      return say(
        'No slots',
        `The cadence of ${nameOf(failure.blog)} makes no slots in the next two years.`,
        'Change the cadence so that it has days and hours to publish on.',
      );
    case 'nothing-found':
      return say(
        'Nothing found',
        nothingFound(failure),
        'Word the subject differently, look up more pages, or set the brief aside.',
      );
    case 'field-missing':
      return say(
        'Field missing',
        `The step needs ‘${failure.field}’, and no step before it gave one.`,
        'Add a step that gives it, or take the step out.',
      );
    case 'too-little-material':
      return say(
        'Too little material',
        `The sources have material for about ${failure.words} words; ${failure.wanted} were asked for.`,
        'Ask for fewer words, look up more pages, or set the brief aside.',
      );
    case 'no-figure':
      return say(
        'No figure in the reply',
        `The writer was asked for a figure twice and gave none: ‘${failure.said}’.`,
        'Ask for it more clearly in the step, or decide by hand.',
      );
    case 'cannot-work-out':
      return say(
        'Cannot be worked out',
        `The expression failed: ${failure.problem}.`,
        'Change the expression, or the field it works on.',
      );
    case 'cannot-copy':
      return say(
        `No ${failure.form}`,
        `The article cannot be kept as ${failure.form}: ${failure.problem}.`,
        'Keep it in another form, as Word or Markdown, then let the brief go on.',
      );
    case 'page-unreadable':
      return say(
        'Page cannot be read',
        `${failure.address} gave nothing readable: ${failure.reason}.`,
        'Correct the address, or take the step out.',
      );
    case 'not-taken':
      return say(
        'Mail not taken',
        `The mail server does not take mail to ${failure.to}: ${failure.said}.`,
        'Correct the address, then let the brief go on.',
      );
    case 'language-unknown':
      return say(
        'Language not known',
        `‘${failure.language}’ is not a language Grivo can translate an article into.`,
        'Name it in English, as German or French.',
      );
    case 'translation-incomplete':
      return say(
        'Translation incomplete',
        `The text in ${failure.language} is incomplete: ${failure.problem}.`,
        'Let it go on to translate it again, or choose another writer.',
      );
    case 'routine-missing':
      return say(
        'Routine missing',
        `The routine ‘${failure.routine}’ is not there.`,
        'Choose another routine, or take the step out.',
      );
    case 'source-unreadable':
      return say('Could not be read', `${nameOf(failure.source)}: ${failure.reason}.`, failure.mend);
    case 'nothing-said':
      return say(
        'Nothing to hear',
        `The recording ${failure.recording} gave no text: ${failure.reason}.`,
        'Listen to it; give another recording, or set this one aside.',
      );
    case 'no-column':
      return say(
        'No such column',
        `The sheet at ${failure.address} has no column ‘${failure.column}’; ${failure.there.length === 0 ? 'it has none at all' : `it has ${failure.there.map((name) => `‘${name}’`).join(', ')}`}.`,
        'Put the column into the sheet, or name another in the step, then let the brief go on.',
      );
    case 'no-captions':
      return say(
        'No captions',
        failure.there.length === 0
          ? `The video at ${failure.address} has no captions.`
          : `The video at ${failure.address} has no captions in ‘${failure.language}’; it has ${failure.there.map((one) => `‘${one}’`).join(', ')}.`,
        failure.there.length === 0
          ? 'Give it captions there, or set this one aside.'
          : 'Choose one of these languages for the procedure, or set this one aside.',
      );
    case 'stopped-by-hand':
      return say('Stopped by hand', `${failure.person} stopped it.`, 'Let it go on when you like; nothing is lost.');
    case 'took-too-long':
      return say(
        'Took too long',
        `It was in work for longer than the ${minutesWords(failure.minutes)} its pipeline gives a brief.`,
        'See what it was waiting for. Let it go on for as long again, or give briefs more time where the pipeline takes them.',
      );
    case 'not-set-up':
      return say(
        `No ${failure.what}`,
        `This installation has no ${failure.what}.`,
        'Set it in the environment (the operator’s page says how), start again, then let the briefs go on.',
      );
    case 'defect':
      return say(
        'Error in Grivo',
        `Grivo failed at this step: ${failure.message}.`,
        'Try it again; if it fails again, report it with the id of the step.',
      );
  }
}

/** Money for people, from millionths. */
function money(micros: number): string {
  return `${(micros / 1_000_000).toFixed(2)} €`;
}

/** What was found on a subject that is too little to write from: how many pages, and what none of them speaks of. */
export function nothingFound({
  subject,
  pages = 0,
  fitting = 0,
  lacking = [],
}: Omit<Extract<Failure, { code: 'nothing-found' }>, 'code'>): string {
  if (pages === 0) return `No page was found on ‘${subject}’.`;
  const speaks = fitting === 0 ? 'none' : `only ${fitting}`;
  const without =
    lacking.length === 0
      ? ''
      : ` Nothing is said of ${listWords(
          lacking.map((word) => `‘${word}’`),
          '',
        )}.`;
  return `Nothing found that answers ‘${subject}’: of ${pages === 1 ? 'one page' : `${pages} pages`} found, ${speaks} ${fitting > 1 ? 'speak' : 'speaks'} of it.${without}`;
}

/** What a service said, in its own words. */
function quoted(said: string | undefined): string {
  return said ? `: “${said.replace(/\.$/, '')}”` : '';
}
