import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { TestLine } from '@grivo/contract';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';

let desk: Desk;
atTheDesk((open) => {
  desk = open;
});

interface Reply {
  status: number;
  body: unknown;
}

/** A model service of one's own: it says what it is told to, and remembers what it was asked. */
let reply: (asked: Record<string, unknown>) => Reply;
const asked: Record<string, unknown>[] = [];
const server = createServer((request, response) => {
  let text = '';
  request.on('data', (part: Buffer) => {
    text += part.toString();
  });
  request.on('end', () => {
    const body = JSON.parse(text) as Record<string, unknown>;
    asked.push(body);
    const { status, body: said } = reply(body);
    response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(said));
  });
});
let address = '';
beforeAll(async () => {
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => new Promise((resolve) => server.close(resolve)));

const SECRET = 'sk-spokes-and-hubs-0042';
let n = 0;

/** Connects a writer that replies so, and tests it. */
async function tested(to: typeof reply): Promise<TestLine> {
  reply = to;
  asked.length = 0;
  desk.w.product.allowed.add(address);
  const owner = (n++ === 0 ? await desk.http.as('owner') : ownerAgain)!;
  ownerAgain = owner;
  const made = await owner<{ id: string }>('POST', '/services', {
    role: 'writer',
    name: `Spokes ${n}`,
    address,
    model: 'spoke-1',
    secret: SECRET,
    price: { microsPerThousandIn: 0, microsPerThousandOut: 0, microsPerPicture: 0 },
  });
  const { body } = await owner<{ lines: TestLine[] }>('POST', `/services/${made.body.id}/test`, {});
  return body.lines[0]!;
}
let ownerAgain: Desk['ask'] | undefined;

const answer = (content: string | null, more: object = {}) => ({
  status: 200,
  body: { choices: [{ message: { role: 'assistant', content, ...more }, finish_reason: 'stop' }], usage: null },
});
const refused = (status: number, error: unknown) => () => ({ status, body: { error } });

test.each([
  [
    'a key',
    401,
    { message: `Incorrect API key provided: ${SECRET}.`, code: 'invalid_api_key' },
    /refused the key \(401\): “Incorrect API key provided: …”/,
  ],
  [
    'a quota',
    429,
    { message: 'You exceeded your current quota.', type: 'insufficient_quota' },
    /The credit at .* is used up: “You exceeded your current quota”\./,
  ],
  ['credit', 402, 'Payment required', /The credit at .* is used up/],
  [
    'the model',
    404,
    { message: 'The model `spoke-1` does not exist', code: 'model_not_found' },
    /does not have that model \(404\): “The model `spoke-1` does not exist”/,
  ],
  [
    'the shape',
    400,
    { message: 'Invalid schema for response_format', param: 'response_format' },
    /cannot reply in the form that was asked for \(400\)/,
    // By a schema, as JSON, and in words alone.
    3,
  ],
  [
    'the request',
    400,
    { message: 'seed must be at least 1' },
    /refused the request \(400\): “seed must be at least 1”/,
  ],
])(
  'what refuses %s says so in its own words, is asked once in each form there is, and its key is never shown',
  async (_what, status, error, says, times = 1) => {
    const line = await tested(refused(status, error));
    expect(line).toMatchObject({ well: false, came: expect.stringMatching(says) as string });
    expect(asked).toHaveLength(times);
    expect(JSON.stringify(line)).not.toContain(SECRET);
  },
);

test('a service that knows the length limit by its other name is asked by that, and again by that alone', async () => {
  const line = await tested((body) =>
    'max_tokens' in body
      ? {
          status: 400,
          body: {
            error: {
              message: "Unsupported parameter: 'max_tokens'. Use 'max_completion_tokens' instead.",
              param: 'max_tokens',
            },
          },
        }
      : answer('{"answer":"ready"}'),
  );
  expect(line).toMatchObject({ well: true });
  expect(asked.map((body) => Object.keys(body).filter((name) => /^max_/.test(name)))).toEqual([
    ['max_tokens'],
    ['max_completion_tokens'],
  ]);
});

test('thoughts before the answer are no answer; no usage is understood; what is declined is told', async () => {
  expect(
    await tested(() => answer('<think>They want {"answer":"not this"}.</think>\n{"answer":"ready"}')),
  ).toMatchObject({
    well: true,
  });
  expect(await tested(() => answer(null, { refusal: 'I will not write that.' }))).toMatchObject({
    well: false,
    came: expect.stringMatching(/will not write this: “I will not write that”/) as string,
  });
});
