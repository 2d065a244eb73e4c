import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, afterEach, expect, test } from 'vitest';
import { Network } from '../../../ground/network/network.ts';
import { ReadingRoom } from '../../../ground/reading/room.ts';
import { approvalAt, grantedFor } from './indieAuth.ts';

const reader = new ReadingRoom();
const network = new Network(() => true);
const ports = { network, reader };
const open: (() => void)[] = [];
afterEach(() => {
  for (const close of open.splice(0)) close();
});
afterAll(async () => {
  await network.close();
  await reader.close();
});

/** A blog that answers by path; `HOME` in an answer is its own address. */
async function blog(paths: Record<string, string | { status: number; text: string }>, header = ''): Promise<string> {
  const server = createServer((request, response) => {
    const home = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
    const answer = paths[request.url ?? ''] ?? { status: 404, text: '' };
    const { status, text } = typeof answer === 'string' ? { status: 200, text: answer } : answer;
    const said = text.replaceAll('HOME', home);
    response.writeHead(status, {
      'content-type': said.startsWith('{') ? 'application/json' : 'text/html',
      ...(header === '' || request.url !== '/' ? {} : { link: header.replaceAll('HOME', home) }),
    });
    response.end(said);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  open.push(() => server.close());
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
}

const META = '{"issuer":"HOME","authorization_endpoint":"HOMEauth","token_endpoint":"/token"}';
const asking = {
  client: 'https://grivo.example/client.json',
  redirect: 'https://grivo.example/back',
  state: 's',
  verifier: 'v',
};

test('the place is found by metadata, in the head or in the header, and by the two links of older blogs', async () => {
  const inHead = await blog({ '/': '<link rel="indieauth-metadata" href="/meta">', '/meta': META });
  const found = { issuer: inHead, authorization: `${inHead}auth`, token: `${inHead}token`, me: inHead };
  expect(await approvalAt(ports, inHead)).toEqual(found);
  const inHeader = await blog({ '/': '<p>Blog', '/meta': META }, '<HOMEmeta>; rel="indieauth-metadata"');
  expect(await approvalAt(ports, inHeader)).toMatchObject({ token: `${inHeader}token` });
  const older = await blog({
    '/': '<link rel="authorization_endpoint" href="/a"><link rel="token_endpoint" href="/t">',
  });
  expect(await approvalAt(ports, older)).toMatchObject({ issuer: null, token: `${older}t` });
});

test.each([
  ['that speaks for others', META.replace('"HOME"', '"https://elsewhere.example/"')],
  ['that leads to no page', META.replace('HOMEauth', 'javascript:alert(1)')],
  ['without a place for secrets', META.replace(',"token_endpoint":"/token"', '')],
  ['that is no JSON', '<p>hello'],
])('metadata %s names no place', async (_, meta) => {
  expect(
    await approvalAt(ports, await blog({ '/': '<link rel="indieauth-metadata" href="/meta">', '/meta': meta })),
  ).toBeNull();
});

test('a secret for another blog is not taken, one for a page of the same place is', async () => {
  const other = await blog({ '/': '<link rel="indieauth-metadata" href="/meta">', '/meta': META });
  const of = async (me: string) => {
    const home = await blog({
      '/': '<link rel="indieauth-metadata" href="/meta">',
      '/ines': '<link rel="indieauth-metadata" href="/meta">',
      '/meta': META,
      '/token': `{"access_token":"sec","scope":"create","me":"${me}"}`,
    });
    const at = (await approvalAt(ports, home))!;
    return grantedFor(ports, at, asking, { code: 'c', issuer: home });
  };
  expect(await of(other)).toMatchObject({ ok: false, problem: expect.stringContaining('another blog') });
  expect(await of('no address')).toMatchObject({ ok: false });
  expect(await of('HOMEines')).toEqual({ ok: true, secret: 'sec', may: ['create'] });
});

test('what the blog says when it gives no secret is told, and an answer that holds none is none', async () => {
  const of = async (token: string | { status: number; text: string }) => {
    const home = await blog({ '/token': token });
    const at = { issuer: null, authorization: `${home}a`, token: `${home}token`, me: home };
    return grantedFor(ports, at, asking, { code: 'c', issuer: null });
  };
  const refused = { status: 400, text: '{"error":"invalid_grant","error_description":"too late"}' };
  expect(await of(refused)).toMatchObject({ ok: false, problem: 'The blog gave no secret: too late.' });
  expect(await of('{"token":"x"}')).toMatchObject({ ok: false, problem: expect.stringContaining('holds no secret') });
  expect(await of('{"access_token":"x"}')).toEqual({ ok: true, secret: 'x', may: null });
});
