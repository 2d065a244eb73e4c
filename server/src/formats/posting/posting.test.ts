import fc from 'fast-check';
import { XMLParser } from 'fast-xml-parser';
import { describe, expect, it } from 'vitest';
import { changedEntry, newEntry, readCategories, readEntry, readPage, readService } from './atomEntry.ts';
import { readRsd } from './rsd.ts';
import { methodCall, readMethodResponse } from './xmlRpc.ts';

/** Another library than ours reads what we write. */
const other = new XMLParser({
  ignoreAttributes: false,
  parseTagValue: false,
  trimValues: false,
  processEntities: true,
});

describe('XML-RPC', () => {
  it('sends every type as the specification writes it', () => {
    const call = methodCall('metaWeblog.newPost', [
      '1',
      7,
      1.5,
      true,
      new Date('2026-11-29T08:00:00Z'),
      Buffer.from('ab'),
      [{ a: 'x' }],
    ]);
    expect(call).toContain('<methodName>metaWeblog.newPost</methodName>');
    for (const value of [
      '<string>1</string>',
      '<int>7</int>',
      '<double>1.5</double>',
      '<boolean>1</boolean>',
      '<dateTime.iso8601>20261129T08:00:00Z</dateTime.iso8601>',
      '<base64>YWI=</base64>',
      '<array><data><value><struct><member><name>a</name><value><string>x</string></value></member></struct></value></data></array>',
    ])
      expect(call).toContain(`<value>${value}</value>`);
  });

  it('carries any text there and back, but for letters XML has none for', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (text) => {
        const call = methodCall('m', [text]);
        // The text as an answer, by what a server would put around it.
        const value = call.slice(call.indexOf('<value>'), call.lastIndexOf('</value>') + 8);
        const read = readMethodResponse(
          `<?xml version="1.0"?><methodResponse><params><param>${value}</param></params></methodResponse>`,
        );
        // biome-ignore lint/suspicious/noControlCharactersInRegex: these are the ones
        const clean = text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '');
        expect(read).toMatchObject({ kind: 'value' });
        if (read.kind === 'value')
          expect(String(read.value).replace(/\r\n?/g, '\n')).toBe(clean.replace(/\r\n?/g, '\n'));
      }),
      { numRuns: 300 },
    );
  });

  it('reads the answers of the specification: a value without a type, a struct, a fault', () => {
    const answer = (inner: string) =>
      readMethodResponse(`<?xml version="1.0"?>\n<methodResponse>${inner}</methodResponse>`);
    expect(answer('<params><param><value>South Dakota</value></param></params>')).toEqual({
      kind: 'value',
      value: 'South Dakota',
    });
    expect(
      answer(
        '<params><param><value><struct><member><name>at</name><value><dateTime.iso8601>19980717T14:08:55</dateTime.iso8601></value></member><member><name>n</name><value><i4>41</i4></value></member></struct></value></param></params>',
      ),
    ).toEqual({ kind: 'value', value: { at: '1998-07-17T14:08:55Z', n: 41 } });
    expect(
      answer(
        '<fault><value><struct><member><name>faultCode</name><value><int>4</int></value></member><member><name>faultString</name><value><string>Too many parameters.</string></value></member></struct></value></fault>',
      ),
    ).toEqual({ kind: 'fault', code: 4, said: 'Too many parameters.' });
    expect(readMethodResponse('<html></html>').kind).toBe('unreadable');
    expect(readMethodResponse('<!DOCTYPE x [<!ENTITY a "b">]><methodResponse/>').kind).toBe('unreadable');
  });
});

describe('Really Simple Discovery', () => {
  it('names its interfaces, the preferred one first, and nothing where it is none', () => {
    const text =
      '<rsd version="1.0"><service><apis><api name="Other" apiLink="https://a.example/o" blogID="1"/><api name="MetaWeblog" preferred="true" apiLink="https://a.example/x" blogID="7"/></apis></service></rsd>';
    expect(readRsd(text)[0]).toEqual({
      name: 'MetaWeblog',
      address: 'https://a.example/x',
      blogId: '7',
      preferred: true,
    });
    expect(readRsd('<html/>')).toEqual([]);
  });
});

describe('the Atom Publishing Protocol', () => {
  const BASE = 'https://bows.example/service';
  it('reads a service document: workspaces, collections, what they take, categories in it and elsewhere (RFC 5023, 8.2)', () => {
    const service = readService(
      `<?xml version="1.0"?><app:service xmlns:app="http://www.w3.org/2007/app" xmlns="http://www.w3.org/2005/Atom"><app:workspace><title>Main</title>
       <app:collection href="blog/main"><title>Entries</title><app:categories href="cats/forMain.cats"/></app:collection>
       <app:collection href="http://bows.example/pic"><title>Pictures</title><app:accept>image/png</app:accept><app:accept>image/jpeg</app:accept></app:collection>
       <app:collection href="list"><title>Links</title><app:accept>application/atom+xml;type=entry</app:accept><app:categories fixed="yes"><category term="a"/><category term="b &amp; c"/></app:categories></app:collection></app:workspace></app:service>`,
      BASE,
    )!;
    expect(service.map(({ address, accept }) => [address, accept])).toEqual([
      ['https://bows.example/blog/main', []],
      ['http://bows.example/pic', ['image/png', 'image/jpeg']],
      ['https://bows.example/list', ['application/atom+xml;type=entry']],
    ]);
    expect([service[0]!.categoriesAt, service[2]!.categories]).toEqual([
      ['https://bows.example/cats/forMain.cats'],
      ['a', 'b & c'],
    ]);
    expect(
      readCategories(
        '<categories xmlns="http://www.w3.org/2007/app"><category xmlns="http://www.w3.org/2005/Atom" term="joke"/></categories>',
      ),
    ).toEqual(['joke']);
    expect(readService('<feed/>', BASE)).toBeNull();
  });

  it('reads a page of entries with the next, drafts among them', () => {
    const page = readPage(
      `<feed xmlns="http://www.w3.org/2005/Atom" xmlns:app="http://www.w3.org/2007/app"><link rel="next" href="?page=2"/><entry><title>One</title><link href="/one"/><link rel="edit" href="/e/1"/><app:edited>2026-11-29T08:00:00Z</app:edited><content type="html">&lt;p&gt;A &amp;amp; B&lt;/p&gt;</content><app:control><app:draft>yes</app:draft></app:control></entry></feed>`,
      'https://bows.example/entries',
    )!;
    expect(page.next).toBe('https://bows.example/entries?page=2');
    expect(page.entries[0]).toEqual({
      edit: 'https://bows.example/e/1',
      alternate: 'https://bows.example/one',
      title: 'One',
      html: '<p>A &amp; B</p>',
      draft: true,
      published: null,
      edited: '2026-11-29T08:00:00Z',
    });
  });

  const words = {
    title: 'Bows & hair',
    html: '<p>Wet & <em>cold</em></p>',
    summary: '',
    categories: ['a & b'],
    draft: true,
    updated: '2026-11-29T08:00:00Z',
  };
  it('writes an entry another library reads, and reads it back', () => {
    const text = newEntry({ ...words, id: 'urn:x', author: 'Ada <Quill>', language: 'en' });
    const entry = (other.parse(text) as { entry: Record<string, never> }).entry as Record<string, unknown>;
    expect(entry['author']).toEqual({ name: 'Ada <Quill>' });
    expect((entry['content'] as Record<string, string>)['#text']).toBe(words.html);
    expect(readEntry(text, BASE)).toMatchObject({ title: words.title, html: words.html, draft: true });
  });

  it('changes an entry in its own words and leaves everything foreign, whatever prefixes it is written with', () => {
    const theirs = `<?xml version="1.0"?>
<a:entry xmlns:a="http://www.w3.org/2005/Atom" xmlns:x="urn:shop" xmlns:p="http://www.w3.org/2007/app"><a:id>urn:1</a:id><a:title>Old</a:title><x:price cur="EUR"><x:title>kept</x:title></x:price><a:content type="html">old</a:content><a:category term="old"/><p:control><p:draft>yes</p:draft></p:control><!-- a note --><a:link rel="edit" href="/e/1"/></a:entry>`;
    const changed = changedEntry(theirs, { ...words, draft: false })!;
    expect(readEntry(changed, BASE)).toMatchObject({
      title: words.title,
      html: words.html,
      draft: false,
      edit: 'https://bows.example/e/1',
    });
    for (const kept of [
      '<x:price cur="EUR"><x:title>kept</x:title></x:price>',
      '<!-- a note -->',
      '<a:id>urn:1</a:id>',
    ])
      expect(changed).toContain(kept);
    for (const gone of ['Old', '>old<', 'term="old"']) expect(changed).not.toContain(gone);
    // Only what is named is other.
    const live = changedEntry(theirs, { draft: false, published: '2026-11-29T09:00:00Z', updated: words.updated })!;
    expect(readEntry(live, BASE)).toMatchObject({
      title: 'Old',
      html: 'old',
      draft: false,
      published: '2026-11-29T09:00:00Z',
    });
    expect(changedEntry('<feed/>', words)).toBeNull();
    expect(changedEntry('<entry/>', words)).toBeNull();
  });
});
