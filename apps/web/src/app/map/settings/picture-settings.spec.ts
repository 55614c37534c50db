import { signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { defaultMap, type NodePicture } from '@pebble/contract';
import { provideMockStore } from '@ngrx/store/testing';
import { host } from '../../../testing/dom';
import { exampleNetwork } from '../../../testing/examples';
import { MapSession } from '../session/map-session';
import { NodePictures } from '../session/node-pictures';
import { readPictures } from '../session/picture-file';
import { PictureSettings } from './picture-settings';
import { mapMethods } from '../../../testing/map-methods';

jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));
jest.mock('../session/picture-file', () => ({ readPictures: jest.fn() }));

const image = 'data:image/jpeg;base64,AAAA';

const asked = mapMethods();

describe('PictureSettings', () => {
  const list = signal<readonly NodePicture[]>([]);
  const pictures = {
    list,
    open: jest.fn(() => Promise.resolve()),
    add: jest.fn((_: string, more: readonly NodePicture[]) => {
      list.update((all) => [...all, ...more]);
      return Promise.resolve();
    }),
    remove: jest.fn(() => {
      list.set([]);
      return Promise.resolve();
    }),
  };
  let fixture: ComponentFixture<PictureSettings>;

  beforeEach(() => {
    list.set([]);
    pictures.add.mockClear();
    const session = {
      description: signal(defaultMap),
      network: signal(exampleNetwork({ nodes: 2 })),
      data: signal(null),
      prepared: signal({ labels: ['ann', 'ben'] }),
    };
    TestBed.configureTestingModule({
      providers: [
        provideMockStore(),
        { provide: MapSession, useValue: { ...session, ...asked } },
        { provide: NodePictures, useValue: pictures },
      ],
    });
    fixture = TestBed.createComponent(PictureSettings);
    fixture.detectChanges();
  });

  const text = (): string => host(fixture).textContent.replace(/\s+/g, ' ');
  const press = async (name: string): Promise<void> => {
    [...host(fixture).querySelectorAll('button')].find((b) => b.textContent.trim() === name)!.click();
    await settle();
  };
  async function settle(): Promise<void> {
    await new Promise((resolve) => setTimeout(resolve));
    fixture.detectChanges();
  }
  async function choose(names: readonly string[]): Promise<void> {
    const input = host(fixture).querySelector<HTMLInputElement>('input[type=file]')!;
    const files = names.map((name) => new File(['x'], name));
    Object.defineProperty(input, 'files', { value: files, configurable: true });
    input.dispatchEvent(new Event('change'));
    await settle();
  }

  it('says for which node a file is', () => {
    expect(text()).toContain('“ann.png”');
  });

  it('adds pictures, shows them, and says which fit no node and which were not read', async () => {
    jest.mocked(readPictures).mockResolvedValue({
      pictures: [
        { name: 'Ann', image },
        { name: 'zoe', image },
      ],
      refused: [{ file: 'notes.txt', why: 'it is no picture that can be read' }],
    });
    await choose(['Ann.png', 'zoe.png', 'notes.txt']);
    expect(text()).toContain('1 picture for nodes of this network.');
    expect(text()).toContain('No node here is called zoe; kept for other networks.');
    expect(text()).toContain('Not read: notes.txt: it is no picture that can be read.');
    expect(text()).toContain('their pictures (1 node of 2)');
    const description = { ...defaultMap, shape: { ...defaultMap.shape, pictures: true, pies: false } };
    expect(asked.describe).toHaveBeenCalledWith(description);
  });

  it('changes nothing where no file is a picture, or too many were chosen', async () => {
    jest.mocked(readPictures).mockResolvedValue({
      pictures: [],
      refused: [{ file: 'a.txt', why: 'it is no picture that can be read' }],
    });
    await choose(['a.txt']);
    expect(text()).toContain('No picture was added. a.txt: it is no picture that can be read.');
    await choose(Array.from({ length: 2001 }, (_, i) => `${i}.png`));
    expect(text()).toContain('These are 2,001 files; at most 2,000 are taken at once.');
    expect(pictures.add).not.toHaveBeenCalled();
  });

  it('can be cancelled while files are read', async () => {
    let finish: (read: Awaited<ReturnType<typeof readPictures>>) => void = () => undefined;
    jest.mocked(readPictures).mockReturnValue(new Promise((resolve) => (finish = resolve)));
    await choose(['ann.png']);
    await press('Cancel');
    finish({ pictures: [{ name: 'ann', image }], refused: [] });
    await settle();
    expect(pictures.add).not.toHaveBeenCalled();
    expect(text()).toContain('Cancelled; no picture was added.');
  });

  it('removes all, and takes them back', async () => {
    list.set([{ name: 'ann', image }]);
    fixture.detectChanges();
    await press('Remove all');
    expect(list()).toEqual([]);
    expect(text()).toContain('1 removed.');
    await press('Take back');
    expect(list()).toEqual([{ name: 'ann', image }]);
    expect(text()).not.toContain('removed.');
  });
});
