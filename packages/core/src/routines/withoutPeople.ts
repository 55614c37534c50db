import type { MessageFilter, NamedFilter, Weave } from '@pebble/contract';

interface Kept<T> {
  readonly kept: T;
  /** What was left out, in words. */
  readonly left: readonly string[];
}

/** A filter without the account, the source or the code that it names: other data do not have them, and a routine names nobody. */
export function filterOfAnyone(filter: MessageFilter): Kept<MessageFilter> {
  const { author, mentions, source, code, ...kept } = filter;
  return {
    kept,
    left: [
      ...(author === undefined && mentions === undefined ? [] : ['by or to which account messages are']),
      ...(source === undefined ? [] : ['of which source messages are']),
      ...(code === undefined ? [] : ['which code messages have']),
    ],
  };
}

/** A recipe in which no account, source or code is named. */
export function withoutPeople(weave: Weave): Kept<Weave> {
  const left: string[] = [];
  const named = (filter: NamedFilter | null): NamedFilter | null => {
    if (!filter) return null;
    const plain = filterOfAnyone(filter.filter);
    left.push(...plain.left);
    return Object.keys(plain.kept).length > 0 ? { ...filter, filter: plain.kept } : null;
  };
  if (!('withoutSources' in weave)) return { kept: weave, left };
  if (weave.withoutSources.length > 0) left.push('which sources were left out');
  const without =
    'without' in weave && weave.things === 'mention' && weave.without.length > 0 ? { without: [] } : {};
  if ('without' in without) left.push('which accounts were left out');
  return {
    kept: {
      ...weave,
      ...without,
      withoutSources: [],
      only: named(weave.only),
      except: named(weave.except),
    },
    left,
  };
}
