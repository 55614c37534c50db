import type { LegendPart } from '@pebble/contract';
import { legendSections, type LegendGroup, type LegendSection } from '../marks/legend/legendSections';
import type { PreparedMap } from '../scene/prepare';

/** What the legends of several maps have in common, so that it need be said only once. */
interface SharedLegend {
  readonly sections: readonly LegendSection[];
  /** The parts that these are; the others are each map's own. */
  readonly parts: readonly LegendPart[];
}

/**
 * Groups are shared where a sign means the same on every map that has it; how many nodes they have is said where that is the same on all
 * maps.
 * @param areAlike whether they are seen from as far away
 */
export function sharedLegend(maps: readonly PreparedMap[], areAlike: boolean): SharedLegend {
  const all = maps.map(legendSections);
  const sections = all[0].flatMap((section) => {
    // How large or wide something is drawn depends on how far away the map is.
    if (!areAlike && (section.what === 'sizes' || section.what === 'widths')) return [];
    const same = all.flatMap((one) => one.filter(({ part }) => part === section.part));
    return same.length === maps.length ? (commonOf(same) ?? []) : [];
  });
  return { sections, parts: sections.map(({ part }) => part) };
}

/** One section for several of the same part; null where they do not mean the same. */
function commonOf(sections: readonly LegendSection[]): LegendSection | null {
  const [first] = sections;
  const isGroups = (one: LegendSection): one is LegendSection & { what: 'groups' } => one.what === 'groups';
  if (sections.every(isGroups)) {
    const isSame = sections.every(({ heading }) => heading === first.heading);
    const groups = isSame ? commonGroups(sections.map((one) => one.groups)) : null;
    return groups && { ...sections[0], groups };
  }
  return sections.every((one) => JSON.stringify(one) === JSON.stringify(first)) ? first : null;
}

/** All groups of several lists; null where one sign means two things, or one thing has two signs. */
function commonGroups(lists: readonly (readonly LegendGroup[])[]): LegendGroup[] | null {
  const [bySign, byLabel] = [new Map<string, string>(), new Map<string, LegendGroup>()];
  const counted = lists.every((groups) => JSON.stringify(groups) === JSON.stringify(lists[0]));
  for (const group of lists.flat()) {
    const sign = signOf(group);
    const known = byLabel.get(group.label);
    if ((bySign.get(sign) ?? group.label) !== group.label || (known && signOf(known) !== sign)) return null;
    bySign.set(sign, group.label);
    if (!known) byLabel.set(group.label, counted ? group : { ...group, nodes: null });
  }
  const groups = [...byLabel.values()];
  // What sums up the others stands last, as on each map.
  return [...groups.filter(({ key }) => key !== undefined), ...groups.filter(({ key }) => key === undefined)];
}

function signOf({ colour, shape, rim }: LegendGroup): string {
  return JSON.stringify([colour, shape, rim]);
}
