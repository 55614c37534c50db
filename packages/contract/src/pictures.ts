import * as z from 'zod';

/** Side of a picture in points; a larger one is made smaller before it is kept. */
export const PICTURE_SIDE = 128;
/** So many pictures at most are added at once. */
export const MOST_PICTURES = 2000;

/** A small picture for the node of a name: PNG or JPEG as a data address. */
export const NodePicture = z.object({
  name: z.string().trim().min(1, 'The picture has no name.').max(300),
  image: z
    .string()
    .max(120_000, 'The picture is larger than 90 kB.')
    .regex(/^data:image\/(png|jpeg);base64,[A-Za-z0-9+/]+={0,2}$/, 'This is not a PNG or JPEG picture.'),
});
export type NodePicture = z.infer<typeof NodePicture>;

export type NodePictureList = z.infer<typeof NodePictureList>;
export const NodePictureList = z
  .array(NodePicture)
  .max(MOST_PICTURES, `At most ${MOST_PICTURES} pictures are added at once.`);
