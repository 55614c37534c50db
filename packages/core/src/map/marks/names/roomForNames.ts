import { toScreen } from '../../scene/buildScene';
import { buildNames } from './names';
import type { SceneInput } from '../../scene/sceneInput';

/** How many names are wanted in a view, and for how many of these there is no place where they cover nothing. */
export function roomForNames(input: SceneInput): { readonly wanted: number; readonly without: number } {
  const { description, namesOrder, alsoNamed } = input.map;
  const wanted = Math.min(description.names.count, namesOrder.length) + alsoNamed.nodes.length;
  const placed = buildNames({ ...input, focus: null }, toScreen(input), []).grips.length;
  return { wanted, without: Math.max(0, wanted - placed) };
}
