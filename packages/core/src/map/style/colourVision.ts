/** Ways of seeing colours that are not the usual one. */
const VISIONS: readonly { readonly name: string; readonly matrix: readonly number[] }[] = [
  // Machado, Oliveira & Fernandes 2009, IEEE TVCG 15, severity 1 (from memory).
  {
    name: 'red blindness (protanopia)',
    matrix: [0.152286, 1.052583, -0.204868, 0.114503, 0.786281, 0.099216, -0.003882, -0.048116, 1.051998],
  },
  {
    name: 'green blindness (deuteranopia)',
    matrix: [0.367322, 0.860646, -0.227968, 0.280085, 0.672501, 0.047413, -0.01182, 0.04294, 0.968881],
  },
  {
    name: 'blue blindness (tritanopia)',
    matrix: [1.255528, -0.076749, -0.178779, -0.078411, 0.930809, 0.147602, 0.004733, 0.691367, 0.3039],
  },
];

/** Colours nearer than this in CIELAB are hard to tell apart in small dots. */
const NEAR = 11;

/** The first two of some colours that look alike to people with one of three kinds of colour blindness; null where none do. */
export function alikeColours(colours: readonly string[]): { a: number; b: number; vision: string } | null {
  for (const { name, matrix } of VISIONS) {
    const seen = colours.map((colour) => lab(seenAs(linear(colour), matrix)));
    for (let b = 1; b < seen.length; b++)
      for (let a = 0; a < b; a++)
        if (Math.hypot(seen[a][0] - seen[b][0], seen[a][1] - seen[b][1], seen[a][2] - seen[b][2]) < NEAR)
          return { a, b, vision: name };
  }
  return null;
}

function linear(colour: string): number[] {
  return [1, 3, 5].map((i) => {
    const value = parseInt(colour.slice(i, i + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  });
}

function seenAs(rgb: readonly number[], m: readonly number[]): number[] {
  return [0, 3, 6].map((r) =>
    Math.min(1, Math.max(0, m[r] * rgb[0] + m[r + 1] * rgb[1] + m[r + 2] * rgb[2])),
  );
}

/** CIELAB (1976) of linear sRGB under D65. */
export function lab([r, g, b]: readonly number[]): [number, number, number] {
  const f = (t: number): number => (t > 0.008856 ? Math.cbrt(t) : 7.787 * t + 16 / 116);
  const x = f((0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.9505);
  const y = f(0.2126 * r + 0.7152 * g + 0.0722 * b);
  const z = f((0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.089);
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}

/** How light a colour is, in CIELAB: 0 black to 100 white. */
export function lightnessOf(colour: string): number {
  return lab(linear(colour))[0];
}
