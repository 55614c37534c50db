/** @jest-environment node */
import { createCanvas, loadImage } from '@napi-rs/canvas';
import crc32 from 'crc-32';
import { withResolution, withWords } from './pngChunks';

/** The chunks of a PNG, read as the specification says. */
function chunksOf(png: Uint8Array): { type: string; data: Buffer; isWhole: boolean }[] {
  const chunks: { type: string; data: Buffer; isWhole: boolean }[] = [];
  const bytes = Buffer.from(png);
  for (let at = 8; at < bytes.length;) {
    const length = bytes.readUInt32BE(at);
    const body = bytes.subarray(at + 4, at + 8 + length);
    const isWhole = crc32.buf(body) === bytes.readInt32BE(at + 8 + length);
    chunks.push({ type: body.subarray(0, 4).toString('latin1'), data: body.subarray(4), isWhole });
    at += 12 + length;
  }
  return chunks;
}

describe('what a PNG says of itself', () => {
  const png = new Uint8Array(createCanvas(3, 2).toBuffer('image/png'));

  it('is its resolution and words in any script, and it is still read by others', async () => {
    const said = withWords(withResolution(png, 300), 'Description', 'Größte: מגדל 🌙');
    const chunks = chunksOf(said);
    expect(chunks.map(({ type }) => type).slice(0, 3)).toEqual(['IHDR', 'iTXt', 'pHYs']);
    expect(chunks.every(({ isWhole }) => isWhole)).toBe(true);
    expect(chunks[2].data.readUInt32BE(0)).toBe(11811);
    expect(chunks[1].data.toString('utf8')).toBe('Description\0\0\0en\0\0Größte: מגדל 🌙');
    const image = await loadImage(Buffer.from(said));
    expect([image.width, image.height]).toEqual([3, 2]);
  });
});
