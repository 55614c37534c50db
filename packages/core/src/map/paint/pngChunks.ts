import crc32 from 'crc-32';

/** The header chunk of a PNG ends here; others may stand behind it. */
const BEHIND_HEADER = 33;

/** Says how many dots to the inch a PNG has: a pHYs chunk (PNG specification, W3C, 11.3.4.3). */
export function withResolution(png: Uint8Array, dotsPerInch: number): Uint8Array<ArrayBuffer> {
  const data = new Uint8Array(9);
  const view = new DataView(data.buffer);
  const perMetre = Math.round(dotsPerInch / 0.0254);
  view.setUint32(0, perMetre);
  view.setUint32(4, perMetre);
  data[8] = 1;
  return withChunk(png, 'pHYs', data);
}

/** Writes words into a PNG: an iTXt chunk, not compressed (PNG specification, W3C, 11.3.3.4). @param keyword as the specification lists them: "Title", "Description" */
export function withWords(png: Uint8Array, keyword: string, words: string): Uint8Array<ArrayBuffer> {
  return withChunk(png, 'iTXt', new TextEncoder().encode(`${keyword}\0\0\0en\0\0${words}`));
}

function withChunk(png: Uint8Array, type: string, data: Uint8Array): Uint8Array<ArrayBuffer> {
  const chunk = new Uint8Array(12 + data.length);
  const view = new DataView(chunk.buffer);
  view.setUint32(0, data.length);
  chunk.set(new TextEncoder().encode(type), 4);
  chunk.set(data, 8);
  view.setInt32(8 + data.length, crc32.buf(chunk.subarray(4, 8 + data.length)));
  const out = new Uint8Array(png.length + chunk.length);
  out.set(png.subarray(0, BEHIND_HEADER));
  out.set(chunk, BEHIND_HEADER);
  out.set(png.subarray(BEHIND_HEADER), BEHIND_HEADER + chunk.length);
  return out;
}
