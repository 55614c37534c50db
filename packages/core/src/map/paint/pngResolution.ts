import crc32 from 'crc-32';

/** Puts a pHYs chunk (PNG specification, W3C, 11.3.4.3) behind the header chunk, which ends at byte 33. */
export function withResolution(png: Uint8Array, dotsPerInch: number): Uint8Array<ArrayBuffer> {
  const chunk = new Uint8Array(21);
  const view = new DataView(chunk.buffer);
  const perMetre = Math.round(dotsPerInch / 0.0254);
  view.setUint32(0, 9);
  chunk.set([0x70, 0x48, 0x59, 0x73], 4);
  view.setUint32(8, perMetre);
  view.setUint32(12, perMetre);
  chunk[16] = 1;
  view.setInt32(17, crc32.buf(chunk.subarray(4, 17)));
  const out = new Uint8Array(png.length + chunk.length);
  out.set(png.subarray(0, 33));
  out.set(chunk, 33);
  out.set(png.subarray(33), 33 + chunk.length);
  return out;
}
