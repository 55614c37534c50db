import type { NodePicture } from '@pebble/contract';
import type { Store } from './open';

/** The pictures of a study's nodes, by name. */
export async function nodePictures({ query }: Store): Promise<NodePicture[]> {
  return query.selectFrom('node_picture').select(['name', 'image']).orderBy('name').execute();
}
