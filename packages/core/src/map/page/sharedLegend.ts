import type { LegendPart } from '@pebble/contract';
import { legendSections, type LegendSection } from '../marks/legend/legendSections';
import type { PreparedMap } from '../scene/prepare';

/** What the legends of several maps have in common, so that it need be said only once. */
export interface SharedLegend {
  readonly sections: readonly LegendSection[];
  /** The parts that these are; the others are each map's own. */
  readonly parts: readonly LegendPart[];
}

/** How many nodes or ties something has is left out where it is not the same on all maps. */
export function sharedLegend(maps: readonly PreparedMap[], scales: readonly number[]): SharedLegend {
  const all = maps.map(legendSections);
  const isAlike = scales.every((scale) => Math.abs(scale / scales[0] - 1) < 0.01);
  const sections = all[0].flatMap((section) => {
    // How large or wide something is drawn depends on how far away the map is.
    if (!isAlike && (section.what === 'sizes' || section.what === 'widths')) return [];
    const same = all.map((one) => one.find(({ part }) => part === section.part));
    const plain = same.map((one) => one && JSON.stringify(withoutCounts(one)));
    if (plain.some((one) => one === undefined || one !== plain[0])) return [];
    const isSame = same.every((one) => JSON.stringify(one) === JSON.stringify(section));
    return [isSame ? section : withoutCounts(section)];
  });
  return { sections, parts: [...new Set(sections.map(({ part }) => part))] };
}

/** What the signs mean, in an order that does not depend on how many there are. */
function withoutCounts(section: LegendSection): LegendSection {
  if (section.what !== 'groups') return section;
  const groups = section.groups.map((group) => ({ ...group, nodes: null }));
  return { ...section, groups };
}
