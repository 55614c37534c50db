import type { NodePicture } from '@pebble/contract';
import type { Store } from './open';

/** The pictures of a study's nodes, by name. */
export async function nodePictures({ query }: Store, study: string): Promise<NodePicture[]> {
  return query
    .selectFrom('node_picture')
    .select(['name', 'image'])
    .where('study_id', '=', study)
    .orderBy('name')
    .execute();
}
