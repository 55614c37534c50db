import { withResolution, withWords } from '@pebble/core';

/** Draws an SVG figure to a PNG of the same size, with its resolution written into it, and what is told of it. */
export async function pngFromSvg(
  svg: string,
  { width, height }: { width: number; height: number },
  dotsPerInch: number,
  words = '',
): Promise<Blob> {
  const address = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
  try {
    const image = new Image(width, height);
    image.src = address;
    await image.decode();
    const canvas = document.createElement('canvas');
    canvas.width = width;
    canvas.height = height;
    canvas.getContext('2d')!.drawImage(image, 0, 0, width, height);
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
    if (!blob)
      throw new Error(
        `The browser could not draw a picture of ${width} by ${height} pixels. Choose a smaller width.`,
      );
    const png = withResolution(new Uint8Array(await blob.arrayBuffer()), dotsPerInch);
    return new Blob([words === '' ? png : withWords(png, 'Description', words)], { type: 'image/png' });
  } finally {
    URL.revokeObjectURL(address);
  }
}
