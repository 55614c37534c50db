import { PICTURE_SIDE, type NodePicture } from '@pebble/contract';

/** Larger files are not read. */
const LARGEST = 30_000_000;
const GROUND = '#FFFFFF';

/** What became of chosen files: pictures, and for each of the others why it is none. */
interface ReadPictures {
  readonly pictures: readonly NodePicture[];
  readonly refused: readonly { readonly file: string; readonly why: string }[];
}

/** The name of the node that a file is for: its own name without the ending. */
export function nodeNameOf(file: string): string {
  return file.replace(/\.[a-z0-9]{1,5}$/i, '').trim();
}

/**
 * Reads image files one after the other, cuts each to a square round its middle and makes it small. Nothing else of a file is kept: no
 * place, no time, no camera.
 * @param told how many files are done
 */
export async function readPictures(
  files: readonly File[],
  told: (done: number) => void,
  isWanted: () => boolean,
): Promise<ReadPictures> {
  const pictures: NodePicture[] = [];
  const refused: { file: string; why: string }[] = [];
  for (const [done, file] of files.entries()) {
    if (!isWanted()) break;
    told(done);
    const name = nodeNameOf(file.name);
    if (name === '') refused.push({ file: file.name, why: 'its name is empty' });
    else if (file.size > LARGEST) refused.push({ file: file.name, why: 'it is larger than 30 MB' });
    else
      try {
        pictures.push({ name, image: await smallSquare(file) });
      } catch {
        refused.push({ file: file.name, why: 'it is no picture that can be read' });
      }
  }
  return { pictures, refused };
}

async function smallSquare(file: File): Promise<string> {
  const image = await createImageBitmap(file);
  try {
    const side = Math.min(image.width, image.height);
    const [left, top] = [(image.width - side) / 2, (image.height - side) / 2];
    const canvas = document.createElement('canvas');
    canvas.width = canvas.height = PICTURE_SIDE;
    const pen = canvas.getContext('2d')!;
    pen.fillStyle = GROUND;
    pen.fillRect(0, 0, PICTURE_SIDE, PICTURE_SIDE);
    pen.imageSmoothingQuality = 'high';
    pen.drawImage(image, left, top, side, side, 0, 0, PICTURE_SIDE, PICTURE_SIDE);
    return canvas.toDataURL('image/jpeg', 0.86);
  } finally {
    image.close();
  }
}
