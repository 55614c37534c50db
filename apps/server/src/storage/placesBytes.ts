import type { BorrowedPlaces } from '@pebble/core';

type Places = Pick<BorrowedPlaces, 'x' | 'y'>;

/** Places of nodes as they are stored: of each node x and y, four bytes each, the lower first. */
export function toPlacesBytes({ x, y }: Places): Buffer {
  const bytes = Buffer.alloc(8 * x.length);
  x.forEach((at, v) => {
    bytes.writeFloatLE(at, 8 * v);
    bytes.writeFloatLE(y[v], 8 * v + 4);
  });
  return bytes;
}

export function fromPlacesBytes(bytes: Buffer): Places {
  const along = (offset: number): Float32Array =>
    Float32Array.from({ length: bytes.length / 8 }, (_, v) => bytes.readFloatLE(8 * v + offset));
  return { x: along(0), y: along(4) };
}
