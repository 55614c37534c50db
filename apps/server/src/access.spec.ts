import { chmodSync, existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import request from 'supertest';
import { keyPath } from './files/accessKey';
import { startedApplication } from './testing/application';

describe('whoever has no key', () => {
  const app = startedApplication();
  const stranger = () => request(app.address);

  it('is told whether the application is ready, and nothing else', async () => {
    await stranger().get('/api/v1/health').expect(200, { ready: true });
    for (const path of [
      '/api/v1/studies',
      `/api/v1/studies/${app.study}/messages`,
      '/api/v1/openapi.json',
      '/api/v1/x',
    ]) {
      const { body, headers } = await stranger().get(path).expect(401);
      expect(body).toMatchObject({ title: 'Without its key', status: 401 });
      expect(headers['www-authenticate']).toBe('Bearer');
    }
    await stranger().delete(`/api/v1/studies/${app.study}`).expect(401);
    await stranger().post('/api/v1/studies').send({ name: 'Mine' }).expect(401);
    expect((await app.get<{ name: string }>('')).name).toBe('Test');
  });

  it('gets a page that asks for it in place of the interface, without scripts', async () => {
    const { text } = await stranger().get('/studies/a').set('accept', 'text/html').expect(401);
    expect(text).toContain('Pebble Thread needs its key');
    expect(text).not.toContain('<script');
    const wrong = await stranger().get('/?key=%3Cscript%3E').set('accept', 'text/html').expect(401);
    expect(wrong.text).toContain('This is not the key');
    expect(wrong.text).not.toContain('<script');
    await stranger().get('/main.js').set('accept', 'application/json').expect(401);
  });

  it.each([
    ['a shorter one', (key: string) => key.slice(0, -1)],
    ['a longer one', (key: string) => `${key}a`],
    ['another one', (key: string) => key.split('').reverse().join('')],
    ['none', () => ''],
    ['two', (key: string) => `${key} ${key}`],
  ])('is not let in with %s', async (_, made) => {
    const key = made(app.key);
    await stranger().get('/api/v1/studies').set('authorization', `Bearer ${key}`).expect(401);
    await stranger().get('/api/v1/studies').set('authorization', key).expect(401);
    await stranger().get('/').query({ key }).expect(401);
  });

  it('is not let in by the key in the address of data, which addresses keep', async () => {
    await stranger().get('/api/v1/studies').query({ key: app.key }).expect(401);
    await stranger().post('/').query({ key: app.key }).expect(401);
  });
});

describe('whoever has the key', () => {
  const app = startedApplication();

  it('brings it once in the address, and has it as a cookie from then on that no script reads and no other page sends', async () => {
    const { headers } = await request(app.address).get('/studies/a').query({ key: app.key }).expect(303);
    expect(headers['location']).toBe('/studies/a');
    expect(headers['referrer-policy']).toBe('no-referrer');
    expect(headers['cache-control']).toBe('no-store');
    const [cookie] = headers['set-cookie'] as unknown as string[];
    expect(cookie).toMatch(
      /^pebble-key-\d+=[\w-]{43}; Max-Age=\d+; Path=\/; Expires=[^;]+; HttpOnly; SameSite=Strict$/,
    );
    await request(app.address).get('/api/v1/studies').set('cookie', cookie.split(';')[0]).expect(200);
  });

  it('is never sent to another host by an address that looks like a path', async () => {
    const { headers } = await request(app.address)
      .get('//foreign.example/')
      .query({ key: app.key })
      .expect(303);
    expect(headers['location']).toBe('/foreign.example/');
  });

  it('finds it in a file that only the owner reads; it stays the same at the next start', async () => {
    const { key } = app;
    expect(readFileSync(keyPath(app.folder), 'utf8').trim()).toBe(key);
    expect(statSync(keyPath(app.folder)).mode & 0o777).toBe(0o600);
    await app.stop();
    await app.begin();
    expect(app.key).toBe(key);
    await app.stop();
    writeFileSync(keyPath(app.folder), 'cut off');
    await app.begin();
    expect(app.key).toMatch(/^[\w-]{43}$/);
    expect(app.key).not.toBe(key);
  });

  it('sees it nowhere in what the application keeps or gives', async () => {
    await app.take('posts.csv', 'id,author,text\n1,ann,hello @bob\n');
    const logbook = await app.get('logbook');
    expect(JSON.stringify(logbook)).not.toContain(app.key);
    await app.stop();
    for (const entry of readdirSync(app.folder, { recursive: true, withFileTypes: true }))
      if (entry.isFile() && entry.name !== 'access-token')
        expect(readFileSync(join(entry.parentPath, entry.name)).includes(app.key)).toBe(false);
    await app.begin();
  });
});

describe('the data folder', () => {
  const app = startedApplication();

  it('is closed to other users of the machine at every start, with what lies in it', async () => {
    await app.stop();
    for (const [name, mode] of [
      ['', 0o755],
      ['catalogue.sqlite', 0o644],
      ['studies', 0o755],
    ] as const)
      if (existsSync(join(app.folder, name))) chmodSync(join(app.folder, name), mode);
    await app.begin();
    expect(statSync(app.folder).mode & 0o777).toBe(0o700);
    for (const entry of readdirSync(app.folder, { withFileTypes: true })) {
      const mode = statSync(join(app.folder, entry.name)).mode & 0o777;
      // Files of SQLite that are made while it runs take their mode from the database.
      expect([entry.name, mode]).toEqual([entry.name, entry.isDirectory() ? 0o700 : 0o600]);
    }
  });
});
