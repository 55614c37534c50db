import { PictureShelf } from './picture-shelf';

describe('PictureShelf', () => {
  const images: { src: string; onload: () => void }[] = [];
  const before = globalThis.Image;
  beforeEach(() => {
    images.length = 0;
    globalThis.Image = class {
      src = '';
      onload = (): void => undefined;
      constructor() {
        images.push(this);
      }
    } as unknown as typeof Image;
  });
  afterEach(() => {
    globalThis.Image = before;
  });

  it('reads a picture once, says when it came, and has it from then on', () => {
    const came = jest.fn();
    const shelf = new PictureShelf(came);
    expect(shelf.of('data:a')).toBeNull();
    expect(shelf.of('data:a')).toBeNull();
    expect(images.map(({ src }) => src)).toEqual(['data:a']);
    images[0].onload();
    expect(came).toHaveBeenCalledTimes(1);
    expect(shelf.of('data:a')).toBe(images[0]);
  });
});
