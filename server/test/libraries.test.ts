import type { FoundPictures, Picture, PictureWhole } from '@grivo/contract';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { createService } from '../src/ports/services/repository.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { illustrating } from './ground/illustrating.ts';

let desk: Desk;
atTheDesk(
  (open) => {
    desk = open;
  },
  { upkeep: [] },
);
const illustrated = illustrating(() => desk);
const whole = async (file: string) => (await desk.ask<PictureWhole>('GET', `/pictures/${file}`)).body;

describe('pictures of libraries', () => {
  const services: string[] = [];
  beforeAll(async () => {
    const { standIns, product } = desk.w;
    for (const [n, address] of standIns.services.libraries.entries())
      services.push(
        await createService(product.ground, product.secrets, {
          role: 'picture library',
          name: ['Harbour Light', 'Plain View'][n]!,
          address,
          model: '',
          secret: null,
          price: { microsPerThousandIn: 0, microsPerThousandOut: 0, microsPerPicture: 0 },
          permits: 4,
          timeLimitMs: 3_000,
        }),
      );
    await desk.w.product.tools.services.refresh();
  });
  afterAll(() => desk.w.standIns.calm());
  const ofLibraries = (subject: string) => illustrated(subject, { lead: 'library', otherwise: 'none' });
  const whose = (lead: { credit?: { text: string }[] } | null) => lead?.credit?.[0]?.text ?? '';

  test('are found by what they show, in turn, credited where that is owed, each in one article only', async () => {
    const subjects = [
      'salt on a scale',
      'turnips in a jar',
      'cabbage on a board',
      'a barrel in a cellar',
      'beetroot kvass',
      'a clock on a wall',
    ];
    const leads = [];
    for (const subject of subjects) leads.push((await ofLibraries(subject)).lead);
    expect(leads.every((lead) => lead !== null)).toBe(true);
    expect(new Set(leads.map((lead) => lead!.file)).size).toBe(subjects.length);
    const kinds = await Promise.all(leads.map(async (lead) => (await whole(lead!.file)).picture));
    expect(new Set(kinds.map(({ origin }) => origin.split('/')[4]))).toEqual(new Set(['harbour-light', 'plain-view']));
    for (const [n, { kind, origin, credit }] of kinds.entries()) {
      expect(kind).toBe('library');
      // One of them asks to be named, the other does not.
      expect(credit !== '').toBe(origin.includes('harbour-light'));
      expect(whose(leads[n]!)).toBe(credit);
    }
    expect(kinds.find(({ credit }) => credit !== '')!.credit).toMatch(
      /^\p{L}+ \p{L}+, Harbour Light, Harbour Light free licence$/u,
    );
    // What is shown has something to do with the article.
    expect(
      leads
        .map((lead) => lead!.alternative.toLowerCase())
        .every((says, n) => subjects[n]!.split(' ').some((word) => word.length > 3 && says.includes(word))),
    ).toBe(true);
  });

  test('where one library is down the other serves; where both are, there is none, and why is kept', async () => {
    const { standIns } = desk.w;
    standIns.trouble('libraries', { how: 'broken' }, 100, 'harbour-light/search');
    for (const subject of ['a crock with a water seal', 'ginger beer', 'miso in a tub'])
      expect((await whole((await ofLibraries(subject)).lead!.file)).picture.origin).toContain('plain-view');
    standIns.trouble('libraries', { how: 'broken' }, 100, 'plain-view/search');
    const none = await ofLibraries('fiddle strings');
    expect(none.lead).toBeNull();
    const [row] = await desk.w.product.ground.db.rows<{ result: string }>(
      "SELECT CAST(o.proposed AS CHAR) AS result FROM output o JOIN step_run r ON r.id = o.step_run WHERE r.brief = ? AND r.kind = 'illustrate'",
      [none.article.brief],
    );
    for (const name of ['Harbour Light:', 'Plain View:']) expect(row!.result).toContain(name);
    standIns.calm();
    expect((await ofLibraries('quarks and gluons')).lead).toBeNull();
  });

  test('are looked for by hand, brought in once with their credit, and tested under settings', async () => {
    const { ask } = desk;
    const { libraries } = (await ask<FoundPictures>('GET', '/libraries/pictures?words=beehive%20in%20an%20orchard'))
      .body;
    expect(libraries.map(({ name, problem }) => [name, problem])).toEqual([
      ['Harbour Light', null],
      ['Plain View', null],
    ]);
    const [found] = libraries[0]!.pictures;
    expect(found).toMatchObject({ shows: 'A beehive in an orchard in spring', isUsed: false });
    expect(found!.thumb).toMatch(/^data:image\/webp;base64,/);
    const bringing = { words: 'beehive in an orchard', picture: found!.id };
    const brought = await ask<Picture>('POST', `/libraries/${libraries[0]!.id}/pictures`, bringing);
    expect(brought.body).toMatchObject({
      kind: 'library',
      words: found!.shows,
      credit: expect.stringContaining('Harbour Light'),
    });
    const again = await ask<Picture>('POST', `/libraries/${libraries[0]!.id}/pictures`, bringing);
    expect(again.body.file).toBe(brought.body.file);
    expect(
      (await ask('POST', `/libraries/${libraries[0]!.id}/pictures`, { ...bringing, picture: 'none' })).status,
    ).toBe(404);
    const { tools } = desk.w.product;
    const lines = await tools.pictureLibrary.test(tools.services.get(services[0]!)!);
    expect(lines.map(({ well }) => well)).toEqual([true, true]);
  });
});
