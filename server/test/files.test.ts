import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createConnection } from 'node:net';
import { stepKinds } from '@grivo/core';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { pictureAs, pictureRefused } from '../src/formats/pictures/read.ts';
import { Network } from '../src/ground/network/network.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
atTheDesk((open) => {
  desk = open;
});
const intake = intakeAt(() => desk);
const get = (path: string) => fetch(`${desk.http.address}${path}`, { headers: { cookie: desk.cookie } });

/** Uploads with whatever type its sender claims, and gives it back as a browser would get it. */
async function served(mime: string, body: Uint8Array | string) {
  const { file } = (await (await intake.upload(encodeURIComponent(mime), body)).json()) as { file: string };
  const response = await get(`/api/files/${file}`);
  return { file, headers: response.headers, bytes: Buffer.from(await response.arrayBuffer()) };
}

describe('what is uploaded', () => {
  const script = "fetch('/api/keys',{method:'POST'})";
  test.each([
    ['text/html', `<script>${script}</script>`],
    ['application/javascript', script],
    ['text/javascript', script],
    ['image/svg+xml', `<svg xmlns="http://www.w3.org/2000/svg"><script>${script}</script></svg>`],
    ['application/xhtml+xml', `<html xmlns="http://www.w3.org/1999/xhtml"><script>${script}</script></html>`],
    ['text/xml', '<?xml-stylesheet href="/api/files/x"?><a/>'],
    ['image/png', `<html><script>${script}</script></html>`],
    ['audio/wav', script],
    ['application/pdf', '%PDF-1.7 <script>'],
  ])('%s is a file to be saved, never shown and never a script', async (mime, body) => {
    const { headers, bytes } = await served(mime, body);
    expect(bytes.toString()).toBe(body);
    expect(headers.get('content-type')).toBe('application/octet-stream');
    expect(headers.get('content-disposition')).toMatch(/^attachment/);
    expect(headers.get('content-security-policy')).toMatch(/^sandbox; default-src 'none'/);
    expect(headers.get('x-content-type-options')).toBe('nosniff');
  });

  test('pictures of dots and sound are shown as what their bytes are, whatever was claimed', async () => {
    const png = await sharp({ create: { width: 4, height: 4, channels: 3, background: '#888' } })
      .png()
      .toBuffer();
    const wav = Buffer.concat([Buffer.from('RIFF\u0024\0\0\0WAVEfmt '), Buffer.alloc(40)]);
    for (const [bytes, mime] of [
      [png, 'image/png'],
      [await sharp(png).webp().toBuffer(), 'image/webp'],
      [await sharp(png).jpeg().toBuffer(), 'image/jpeg'],
      [await sharp(png).avif().toBuffer(), 'image/avif'],
      [wav, 'audio/wav'],
    ] as const) {
      const { headers } = await served('text/html', bytes);
      expect(headers.get('content-type')).toBe(mime);
      expect(headers.get('content-disposition')).toBe(null);
      expect(headers.get('content-security-policy')).toMatch(/^sandbox/);
    }
  });

  test('scripts of a page come from the folder of built files only', async () => {
    const { host } = new URL(desk.http.address);
    const policy = (await get('/')).headers.get('content-security-policy')!;
    expect(policy).toContain(`script-src ${host}/assets/;`);
    expect(policy).not.toMatch(/script-src[^;]*'self'/);
    const strange = await new Promise<string>((resolve) => {
      const { hostname, port } = new URL(desk.http.address);
      const socket = createConnection(Number(port), hostname, () =>
        socket.write('GET / HTTP/1.1\r\nHost: a; script-src *\r\nConnection: close\r\n\r\n'),
      );
      let text = '';
      socket.on('data', (part) => {
        text += part;
      });
      socket.on('close', () => resolve(text));
    });
    expect(strange).not.toContain('script-src *');
  });

  test('slow readers of large files keep no more than a part of them in memory', async () => {
    const wav = Buffer.concat([Buffer.from('RIFF\u0024\0\0\0WAVEfmt '), Buffer.alloc(48_000_000)]);
    const { file } = (await (await intake.upload('audio/wav', wav)).json()) as { file: string };
    const { hostname, port } = new URL(desk.http.address);
    globalThis.gc?.();
    const before = process.memoryUsage().arrayBuffers;
    const sockets = Array.from({ length: 8 }, () => {
      const socket = createConnection(Number(port), hostname, () =>
        socket.write(`GET /api/files/${file} HTTP/1.1\r\nHost: ${hostname}:${port}\r\nCookie: ${desk.cookie}\r\n\r\n`),
      );
      socket.pause();
      return socket;
    });
    let most = 0;
    for (let n = 0; n < 30; n++) {
      await new Promise((resolve) => setTimeout(resolve, 50));
      most = Math.max(most, process.memoryUsage().arrayBuffers - before);
    }
    for (const socket of sockets) socket.destroy();
    // Eight whole ones would be 384 MB.
    expect(most / 1_000_000).toBeLessThan(120);
  });
});

describe('pictures', () => {
  const tiny = () => sharp({ create: { width: 4, height: 4, channels: 3, background: '#888' } });
  const as = (bytes: Buffer) => pictureAs(bytes, 1_600, (open) => open.webp({ quality: 80, effort: 0 }));

  test('drawings described by text, moving ones and documents are refused before anything opens them', async () => {
    for (const text of [
      '<svg xmlns="http://www.w3.org/2000/svg"/>',
      '<?xml version="1.0"?><svg/>',
      'GIF89a',
      '%PDF-1.4',
      '',
    ])
      expect(pictureRefused(Buffer.from(text)), text).toMatch(/PNG, JPEG, WebP and AVIF/);
    expect((await as(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'))).ok).toBe(false);
    // A sound beginning with nothing behind it.
    const png = await tiny().png().toBuffer();
    expect(
      await as(Buffer.concat([png.subarray(0, 8), Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>')])),
    ).toMatchObject({
      ok: false,
    });
  });

  test('one that is very long is brought to a length the web takes; one of too many dots is refused', async () => {
    const long = await sharp({ create: { width: 100, height: 59_000, channels: 3, background: '#888' } })
      .png()
      .toBuffer();
    const read = await as(long);
    expect(read).toMatchObject({ ok: true, height: 12_000 });
    const huge = await sharp({ create: { width: 9_000, height: 9_000, channels: 3, background: '#888' } })
      .png({ compressionLevel: 9 })
      .toBuffer();
    expect(await as(huge)).toMatchObject({ ok: false, problem: expect.stringContaining('pixel') as string });
  });
});

describe('secrets and addresses', () => {
  let first: ReturnType<typeof createServer>;
  let second: ReturnType<typeof createServer>;
  const heard: { path: string; authorization: string | undefined; key: string | undefined }[] = [];
  const at = (server: typeof first) => `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const network = new Network(() => true);
  beforeAll(async () => {
    second = createServer((request, response) => {
      heard.push({
        path: request.url ?? '',
        authorization: request.headers.authorization,
        key: request.headers['x-api-key'] as string | undefined,
      });
      response.end('ok');
    });
    first = createServer((request, response) => {
      if (request.url === '/own') response.writeHead(302, { location: '/there' }).end();
      else if (request.url === '/there') {
        heard.push({ path: 'own', authorization: request.headers.authorization, key: undefined });
        response.end('ok');
      } else response.writeHead(302, { location: `${at(second)}/elsewhere` }).end();
    });
    for (const server of [first, second]) await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  });
  afterAll(async () => {
    await network.close();
    for (const server of [first, second]) server.close();
  });
  const call = (address: string) =>
    network.call({
      method: 'GET',
      address,
      headers: { authorization: 'Bearer secret', 'x-api-key': 'secret', accept: 'text/plain' },
      timeLimitMs: 5_000,
    });

  test('a redirect to another origin gets no secret; one within the origin does', async () => {
    expect((await call(`${at(first)}/away`)).kind).toBe('reply');
    expect(heard.at(-1)).toEqual({ path: '/elsewhere', authorization: undefined, key: undefined });
    expect((await call(`${at(first)}/own`)).kind).toBe('reply');
    expect(heard.at(-1)).toMatchObject({ path: 'own', authorization: 'Bearer secret' });
  });

  test('an address with a name and a password in it is refused, also as the end of a redirect', async () => {
    const outcome = await call(at(first).replace('http://', 'http://ines:secret@'));
    expect(outcome).toMatchObject({
      kind: 'refused',
      reason: expect.stringContaining('name and a password') as string,
    });
  });
});

describe('texts that would read files', () => {
  test('are refused when a pipeline is made, changed or read in, and when a routine is kept, each with its place', async () => {
    const evil = "{% include '.env' %}";
    const document = {
      grivo: 1,
      language: 'en',
      steps: [
        { ...stepKinds.take.fresh('s1'), sources: [] },
        { ...stepKinds.answer.fresh('s2'), instruction: evil },
        { ...stepKinds.tell.fresh('s3'), text: `On {{ subject }} {% render 'package.json' %}` },
      ],
    };
    const made = await desk.ask('POST', '/pipelines', { name: 'Evil', document });
    expect(made.status).toBe(422);
    expect(made.problem.places?.map(({ place }) => place)).toEqual(expect.arrayContaining(['s2.instruction']));
    expect(made.problem.detail).toContain('tag "include" not found');
    const routine = await desk.ask('POST', '/routines', {
      name: 'Evil',
      document: { ...document, steps: [document.steps[1]] },
    });
    expect(routine.status).toBe(422);
    const whole = await desk.ask<{ id: string }>('POST', '/pipelines', {
      name: 'Good',
      document: { ...document, steps: [document.steps[0]] },
    });
    expect(whole.status).toBe(201);
    const changed = await desk.ask('PUT', `/pipelines/${whole.body.id}`, { document }, { 'if-match': '"1"' });
    expect(changed.status).toBe(422);
    const yaml = `grivo: 1\nlanguage: en\nsteps:\n  - take: {}\n  - answer: {as: x, instruction: "${evil}"}\n`;
    const read = await desk.ask('POST', '/procedures/read', { yaml });
    expect(read.status).toBe(422);
  });
});
