/** Where the nodes of a map are. */
export interface Places {
  readonly x: Float32Array;
  readonly y: Float32Array;
}

/** Places as they are sent: x and y of each node, one after the other. */
export function separate(pairs: Float32Array): Places {
  const count = pairs.length / 2;
  const places = { x: new Float32Array(count), y: new Float32Array(count) };
  for (let v = 0; v < count; v++) {
    places.x[v] = pairs[2 * v];
    places.y[v] = pairs[2 * v + 1];
  }
  return places;
}

export function interleave({ x, y }: Places): ArrayBuffer {
  const pairs = new Float32Array(x.length * 2);
  for (let v = 0; v < x.length; v++) {
    pairs[2 * v] = x[v];
    pairs[2 * v + 1] = y[v];
  }
  return pairs.buffer;
}
