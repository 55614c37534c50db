import { execFileSync } from 'node:child_process';
import { makePosts, postsAsCsv } from '@pebble/standins';
import { startedApplication } from './testing/application';
import { WovenNetworks, type Made } from './testing/wovenNetworks';

describe('a figure by its address', () => {
  const app = startedApplication();
  let made: Made;
  beforeAll(async () => {
    await app.take('posts.csv', postsAsCsv(makePosts(300).posts));
    made = await new WovenNetworks(app).make({ what: 'accounts', kinds: ['reply', 'mention'] });
  }, 60_000);

  const figure = (file: string) =>
    app.api.get(`/api/v1/studies/${app.study}/networks/${made.id}/figure.${file}`).buffer(true);
  const bytes = async (file: string): Promise<Buffer> => {
    const { body } = await figure(file)
      .parse((response, done) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () => done(null, Buffer.concat(parts)));
      })
      .expect(200);
    return body as Buffer;
  };

  it('is not there before the map was arranged, and says so', async () => {
    const { body } = await figure('svg').expect(409);
    expect((body as { detail: string }).detail).toContain('never arranged');
  });

  it('is the map with legend, caption and letters as shapes', async () => {
    await app
      .step('arrange-map', {
        network: made.id,
        layout: { iterations: 50 },
        upload: null,
        iterations: null,
        moved: 0,
      })
      .expect(200);
    const svg = (await bytes('svg')).toString();
    expect(svg.startsWith('<svg')).toBe(true);
    expect(svg).toContain('width="1800"');
    expect(svg).toContain(`<title>Map of a network: ${made.handles.length} accounts and `);
    expect(svg).toContain(
      `<desc>${made.handles.length} accounts tied when one replies to or mentions another`,
    );
    expect(svg).toContain('aria-label="Colour: community"');
    expect(svg).not.toContain('<text');
    // What is told stands in it without the caption too, which is then not drawn.
    const bare = (await bytes('svg?caption=false')).toString();
    expect(bare).toContain('<desc>');
    expect(bare.length).toBeLessThan(svg.length);
  });

  it('is a PNG of the width and the dots per inch that were asked for', async () => {
    const png = await bytes('png?width=900&resolution=300&ground=night');
    expect(png.subarray(1, 4).toString()).toBe('PNG');
    expect(png.readUInt32BE(16)).toBe(900);
    const density = png.indexOf('pHYs');
    // Dots per metre (PNG specification, W3C, 11.3.4.3).
    expect(png.readUInt32BE(density + 4)).toBe(11811);
    expect(png.includes('iTXtDescription\0\0\0en\0\0Map of a network: ')).toBe(true);
  });

  it('is a PDF of the size in print, whose letters can be searched, the same each time', async () => {
    const pdf = await bytes('pdf?width=1800&resolution=300');
    expect(await bytes('pdf?width=1800&resolution=300')).toEqual(pdf);
    const read = (program: string, ...args: string[]): string =>
      execFileSync(program, args, { input: pdf, encoding: 'utf8' });
    const info = read('pdfinfo', '-');
    // 1,800 pixels at 300 to the inch are six inches: 432 points.
    expect(info).toMatch(/Page size:\s+432 x/);
    expect(info).toMatch(/Title:\s+Test\n/);
    const text = read('pdftotext', '-', '-').replace(/\s+/g, ' ');
    expect(text).toContain('Colour: community');
    expect(text).toContain('tied when one replies to or mentions another');
    const svg = (await bytes('svg')).toString();
    const [, name] = /aria-label="([a-z_0-9]+)"/.exec(svg)!;
    expect(text).toContain(name);
  });

  it('is refused where a setting is none', async () => {
    await figure('svg?width=9').expect(400);
    await figure('svg?ground=moon').expect(400);
    await figure('gif').expect(404);
    await app.api.get(`/api/v1/studies/${app.study}/networks/none/figure.svg`).expect(404);
  });
});
