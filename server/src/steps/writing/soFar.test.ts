import fc from 'fast-check';
import { expect, test } from 'vitest';
import { textsSoFar } from './soFar.ts';

const REPLY = {
  blocks: [
    { kind: 'paragraph', text: 'Salt "draws" water.', items: [], passages: [1] },
    { kind: 'list', text: 'What it takes:', items: ['a crock', 'Salz für {Kraut}, 2 %'], passages: [1, 2] },
  ],
};
const NAMES = ['text', 'items'];
const WHOLE = ['Salt "draws" water.', 'What it takes:', 'a crock', 'Salz für {Kraut}, 2 %'];

test('a whole reply gives all its texts, whatever stands before it', () => {
  const json = JSON.stringify(REPLY);
  for (const reply of [
    json,
    JSON.stringify(REPLY, null, 2),
    `Here it is:\n\n\`\`\`json\n${json}\n\`\`\``,
    `<think>{"text": "no"}</think>${json}`,
  ])
    expect(textsSoFar(reply, NAMES)).toEqual(WHOLE);
});

test('cut anywhere, it gives the beginning of them', () => {
  const escaped = JSON.stringify(REPLY).replaceAll('ü', '\\u00fc');
  for (const json of [JSON.stringify(REPLY), escaped])
    for (let end = 0; end <= json.length; end++) {
      const texts = textsSoFar(json.slice(0, end), NAMES);
      for (const [n, text] of texts.entries())
        expect(n < texts.length - 1 ? text === WHOLE[n] : WHOLE[n]!.startsWith(text), json.slice(0, end)).toBe(true);
    }
});

test('while it still thinks, nothing is written; what is no JSON gives nothing and does no harm', () => {
  expect(textsSoFar('<think>the reader asks {"text": "why"', NAMES)).toEqual([]);
  expect(textsSoFar('I cannot help with that.', NAMES)).toEqual([]);
  expect(textsSoFar('{"titles": ["Salt by weight", "How mu', ['titles'])).toEqual(['Salt by weight', 'How mu']);
  fc.assert(fc.property(fc.string({ unit: 'binary' }), (text) => Array.isArray(textsSoFar(`{"text":"${text}`, NAMES))));
});
