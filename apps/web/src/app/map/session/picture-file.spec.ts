import { nodeNameOf, readPictures } from './picture-file';

describe('image files for nodes', () => {
  it('are for the node that is called like the file', () => {
    expect(nodeNameOf('lamp_planner.png')).toBe('lamp_planner');
    expect(nodeNameOf('a.b.jpeg')).toBe('a.b');
    expect(nodeNameOf('without ending')).toBe('without ending');
    expect(nodeNameOf('.png')).toBe('');
  });

  describe('that are chosen', () => {
    const pen = { fillRect: jest.fn(), drawImage: jest.fn() };
    beforeEach(() => {
      pen.drawImage.mockReset();
      jest.spyOn(HTMLCanvasElement.prototype, 'getContext').mockReturnValue(pen as never);
      jest.spyOn(HTMLCanvasElement.prototype, 'toDataURL').mockReturnValue('data:image/jpeg;base64,AAAA');
      Object.assign(globalThis, {
        createImageBitmap: (file: File) =>
          file.type.startsWith('image/')
            ? Promise.resolve({ width: 300, height: 100, close: jest.fn() })
            : Promise.reject(new Error('not an image')),
      });
    });
    afterEach(() => jest.restoreAllMocks());
    const file = (name: string, type = 'image/png'): File => new File(['x'], name, { type });

    it('are cut to the square round their middle; what is no picture is told, and the others are read', async () => {
      const told: number[] = [];
      const files = [file('ann.png'), file('notes.txt', 'text/plain'), file('.png'), file('ben.png')];
      const { pictures, refused } = await readPictures(
        files,
        (done) => told.push(done),
        () => true,
      );
      expect(pictures.map(({ name }) => name)).toEqual(['ann', 'ben']);
      expect(refused).toEqual([
        { file: 'notes.txt', why: 'it is no picture that can be read' },
        { file: '.png', why: 'its name is empty' },
      ]);
      expect(told).toEqual([0, 1, 2, 3]);
      expect(pen.drawImage.mock.calls[0].slice(1, 5)).toEqual([100, 0, 100, 100]);
    });

    it('are not read on when that is cancelled', async () => {
      let left = 1;
      const files = [file('ann.png'), file('ben.png'), file('cem.png')];
      const { pictures } = await readPictures(
        files,
        () => undefined,
        () => left-- > 0,
      );
      expect(pictures).toHaveLength(1);
    });
  });
});
