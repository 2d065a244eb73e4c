/**
 * The texts that stand at some names of a JSON reply which has not come to its end, the last of them as far as it goes.
 * What stands before the reply (thoughts, a polite line, a fence) is passed over. Linear in its length.
 * @param names the names whose values, or whose lists' values, are texts people read
 */
export function textsSoFar(reply: string, names: readonly string[]): string[] {
  const texts: string[] = [];
  const within: string[] = [];
  let name = '';
  let before = '';
  for (let at = Math.max(0, startOf(reply)); at < reply.length; at++) {
    const sign = reply[at]!;
    if (sign === '"') {
      const end = endOf(reply, at + 1);
      const text = read(reply.slice(at + 1, end));
      // A name stands in an object, after its brace or a comma.
      if (within.at(-1) === '{' && before !== ':') name = text;
      else if (names.includes(name) && text.trim() !== '') texts.push(text);
      at = end;
    } else if (sign === '{' || sign === '[') within.push(sign);
    else if (sign === '}' || sign === ']') within.pop();
    if (sign.trim() !== '') before = sign;
  }
  return texts;
}

/** Where the reply begins behind what a model thought aloud. */
function startOf(reply: string): number {
  const thoughts = /^\s*<(think|thinking|reasoning|thought)>/.exec(reply);
  if (!thoughts) return reply.indexOf('{');
  const end = reply.lastIndexOf(`</${thoughts[1]}>`);
  return end < 0 ? reply.length : reply.indexOf('{', end);
}

/** Where a text ends: at its closing mark, or where nothing more has come. */
function endOf(reply: string, from: number): number {
  for (let at = from; at < reply.length; at++) {
    if (reply[at] === '\\') at++;
    else if (reply[at] === '"') return at;
  }
  return reply.length;
}

/** What is written in JSON between two marks; a sign cut in the middle is left out. */
function read(written: string): string {
  for (const cut of [written, written.replace(/\\(?:u[\da-f]{0,3})?$/i, '')]) {
    try {
      return String(JSON.parse(`"${cut.replace(/[\n\r\t]/g, ' ')}"`));
    } catch {
      // Cut in the middle of a sign, or no JSON at all.
    }
  }
  return '';
}
