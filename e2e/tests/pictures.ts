import { execFileSync } from 'node:child_process';
import type { Page } from '@playwright/test';

/** The page of a PDF as a PNG, by poppler, which shares no code with what wrote it. */
export function rendered(pdf: string, resolution: number): Buffer {
  return execFileSync('pdftoppm', ['-png', '-r', String(resolution), '-singlefile', pdf], {
    maxBuffer: 1e8,
  });
}

/** The share of points in which two pictures differ by a quarter of the range or more, both drawn 900 pixels wide. */
export async function unlike(page: Page, ...pictures: readonly [Buffer, Buffer]): Promise<number> {
  return page.evaluate(
    async (list) => {
      const [a, b] = await Promise.all(
        list.map(async (base64) => {
          const image = new Image();
          image.src = `data:image/png;base64,${base64}`;
          await image.decode();
          const height = Math.round((900 * image.height) / image.width);
          const pen = new OffscreenCanvas(900, height).getContext('2d')!;
          pen.drawImage(image, 0, 0, 900, height);
          return pen.getImageData(0, 0, 900, height).data;
        }),
      );
      if (Math.abs(a.length - b.length) > 2 * 4 * 900) return 1;
      let far = 0;
      const length = Math.min(a.length, b.length);
      for (let i = 0; i < length; i += 4)
        if ([0, 1, 2].some((c) => Math.abs(a[i + c] - b[i + c]) > 64)) far++;
      return far / (length / 4);
    },
    pictures.map((picture) => picture.toString('base64')),
  );
}
