import { existsSync, readFileSync } from 'node:fs';
import { NodePictureList } from '@pebble/contract';
import { counted } from '@pebble/core';
import { uploadPath } from '../../files/places';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Pictured extends Record<string, unknown> {
  readonly pictures: number;
  /** Of them those whose name had one before. */
  readonly replaced: number;
}

/** Adds small pictures for the nodes of some names; maps show them where their look asks for it. */
export const addPictures: StepDefinition<'add-pictures', Pictured> = {
  kind: 'add-pictures',
  async run(context, { upload }, progress) {
    const { store } = context;
    const path = uploadPath(store.folder, upload);
    if (!existsSync(path)) throw new StepRefused('The pictures did not arrive. Please choose them again.');
    const pictures = read(readFileSync(path, 'utf8'));
    let replaced = 0;
    for (const [i, { name, image }] of pictures.entries()) {
      if (i % 50 === 0) progress('Keeping pictures', i / pictures.length);
      const known = await store.query
        .updateTable('node_picture')
        .set({ image })
        .where('name', '=', name)
        .executeTakeFirst();
      if (known.numUpdatedRows > 0n) replaced++;
      else await store.query.insertInto('node_picture').values({ name, image }).execute();
    }
    context.files.spend(upload);
    return { pictures: pictures.length, replaced };
  },
  describe(_, result) {
    const count = counted(result?.pictures ?? 0, 'picture');
    const replaced = result?.replaced ? ` (${result.replaced} of them in place of others)` : '';
    return `For nodes ${count} from image files ${result?.pictures === 1 ? 'was' : 'were'} added${replaced}.`;
  },
};

function read(text: string): NodePictureList {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new StepRefused(
      'The pictures did not arrive whole. Please choose them again; nothing was changed.',
    );
  }
  const checked = NodePictureList.safeParse(value);
  if (checked.success) return checked.data;
  const [{ message, path }] = checked.error.issues;
  const at = typeof path[0] === 'number' ? ` (picture ${path[0] + 1})` : '';
  throw new StepRefused(`${message}${at} Nothing was changed.`);
}

export const removePictures: StepDefinition<'remove-pictures', { pictures: number }> = {
  kind: 'remove-pictures',
  async run({ store }) {
    const gone = await store.query.deleteFrom('node_picture').executeTakeFirst();
    return { pictures: Number(gone.numDeletedRows) };
  },
  describe: (_, result) => `The pictures of nodes were removed (${result?.pictures ?? 0}).`,
};
