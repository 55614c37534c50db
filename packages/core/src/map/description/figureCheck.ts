import type { Network } from '@pebble/contract';
import { isOfAccounts } from '../../weaves';
import { counted, formatCount, joinWith } from '../../words/sentence';
import { legendSections } from '../marks/legend/legendSections';
import type { PreparedMap } from '../scene/prepare';
import { textsOfScene, type Scene } from '../scene/scene';
import { alikeColours, lightnessOf } from '../style/colourVision';
import { blended, contrast } from '../style/palette';

/** One thing that was looked at before a figure is saved. */
export interface Finding {
  /** Whether there is nothing to be looked at by a person. */
  readonly isGood: boolean;
  readonly words: string;
}

export interface FigureToCheck {
  readonly scene: Scene;
  readonly maps: readonly { readonly map: PreparedMap; readonly network: Pick<Network, 'weave'> }[];
  /** Size of the smallest letters, and what is readable, in points of print. */
  readonly letters: { readonly smallest: number; readonly least: number };
  /** The sentence under it: as the map gives it, written by hand, or left away. */
  readonly caption: 'of the map' | 'by hand' | 'none';
  /** Whether people have pseudonyms in it. */
  readonly isHidden?: boolean;
}

/** Of text by WCAG 2.2, success criterion 1.4.3, level AA. */
const LEAST_CONTRAST = 4.5;
/** Greys whose lightness in CIELAB differs by less are hard to tell apart in small dots. */
const NEAR_GREY = 8;

/** What a reader of the figure could stumble over, each with whether it is good. */
export function checkFigure(figure: FigureToCheck): Finding[] {
  const maps = figure.maps.map(({ map }) => map);
  return [
    letters(figure),
    names(figure.scene),
    contrasts(figure.scene),
    ...colours(maps),
    legend(figure.scene, maps),
    caption(figure.caption),
    ...handles(figure),
  ];
}

function letters({ letters: { smallest, least } }: FigureToCheck): Finding {
  const size = `The smallest letters have ${smallest.toFixed(1)} points`;
  return smallest >= least - 0.05
    ? { isGood: true, words: `${size}.` }
    : { isGood: false, words: `${size}; below ${least} they are hard to read.` };
}

const picturesIn = (scene: Scene): readonly Scene[] => scene.panels?.map((one) => one.scene) ?? [scene];

function names(scene: Scene): Finding {
  const scenes = picturesIn(scene);
  const left = scenes.reduce((sum, one) => sum + (one.namesLeft ?? 0), 0);
  const drawn = scenes.reduce(
    (sum, { grips }) => sum + grips.filter(({ what }) => what === 'name').length,
    0,
  );
  if (left === 0)
    return { isGood: true, words: `All ${counted(drawn, 'name')} that the caption asks for have room.` };
  const [of, were] = [formatCount(drawn + left), left === 1 ? 'was' : 'were'];
  return {
    isGood: false,
    words: `Of ${of} names ${formatCount(left)} ${were} left out, since there is no room for them without covering others.`,
  };
}

function contrasts(scene: Scene): Finding {
  const low = textsOfScene(scene).filter(({ fill, alpha, halo, box }) => {
    const behind = box ?? halo ?? scene.ground;
    return contrast(blended(fill, behind, alpha), behind) < LEAST_CONTRAST;
  });
  if (low.length === 0)
    return {
      isGood: true,
      words: `All letters stand out from what is behind them (contrast of ${LEAST_CONTRAST} or more).`,
    };
  const words = [...new Set(low.map(({ text }) => `“${text.trim()}”`))].slice(0, 3);
  return {
    isGood: false,
    words: `${counted(low.length, 'text has', 'texts have')} a contrast below ${LEAST_CONTRAST}: ${joinWith('and', words)}${low.length > words.length ? ' among them' : ''}.`,
  };
}

/** Groups by their labels and colours, where colours are of groups and no shape tells them apart. */
function groupsOf(map: PreparedMap): { label: string; colour: string }[] {
  const { colour, shape } = map.description;
  if (map.colourRange || shape.column === colour.column) return [];
  const section = legendSections({ ...map, description: { ...map.description, legend: { ...map.description.legend, without: [] } } }).find(({ part }) => part === 'colour'); // prettier-ignore
  return section?.what === 'groups' ? section.groups.flatMap(({ label, colour: own }) => (own ? [{ label, colour: own }] : [])) : []; // prettier-ignore
}

function colours(maps: readonly PreparedMap[]): Finding[] {
  const all = maps.map(groupsOf).filter((groups) => groups.length > 1);
  if (all.length === 0) return [];
  const findings: Finding[] = [];
  const alike = all.flatMap((groups) => {
    const found = alikeColours(groups.map(({ colour }) => colour));
    return found ? [`“${groups[found.a].label}” and “${groups[found.b].label}” with ${found.vision}`] : [];
  });
  findings.push(
    alike.length === 0
      ? { isGood: true, words: 'Colours of groups can be told apart with red, green and blue blindness.' }
      : { isGood: false, words: `Colours that look alike: ${joinWith('and', [...new Set(alike)])}.` },
  );
  const pairs = Math.max(...all.map((groups) => greyPairs(groups.map(({ colour }) => colour))));
  findings.push(
    pairs === 0
      ? { isGood: true, words: 'Groups can be told apart in print without colours.' }
      : {
          isGood: false,
          words: `In print without colours ${counted(pairs, 'pair')} of groups ${pairs === 1 ? 'looks' : 'look'} alike; greys, or shapes, tell up to six apart.`,
        },
  );
  return findings;
}

function greyPairs(list: readonly string[]): number {
  const light = list.map(lightnessOf);
  let pairs = 0;
  for (let b = 1; b < light.length; b++)
    for (let a = 0; a < b; a++) if (Math.abs(light[a] - light[b]) < NEAR_GREY) pairs++;
  return pairs;
}

function legend(scene: Scene, maps: readonly PreparedMap[]): Finding {
  const without = [...new Set(maps.flatMap(({ description }) => description.legend.without))];
  const cut = textsOfScene(scene).flatMap(({ text }) => /^and ([\d,]+) more$/.exec(text.trim())?.[1] ?? []);
  if (without.length === 0 && cut.length === 0)
    return { isGood: true, words: 'The legend explains all that is drawn.' };
  const parts = [
    ...(without.length > 0
      ? [`${joinWith('and', without)} ${without.length === 1 ? 'is' : 'are'} left out`]
      : []),
    ...(cut.length > 0 ? [`there is no room for ${joinWith('and', cut)} of its entries`] : []),
  ];
  return { isGood: false, words: `The legend does not explain everything: ${parts.join('; ')}.` };
}

function caption(what: FigureToCheck['caption']): Finding {
  switch (what) {
    case 'of the map':
      return { isGood: true, words: 'The caption says what is drawn.' };
    case 'by hand':
      return { isGood: false, words: 'The caption was written by hand: read it against the picture.' };
    case 'none':
      return { isGood: false, words: 'There is no caption: what is drawn has to be said beside the figure.' };
  }
}

/** Names of accounts lead to people. */
function handles({ scene, maps, isHidden = false }: FigureToCheck): Finding[] {
  if (!maps.some(({ network }) => isOfAccounts(network.weave))) return [];
  if (isHidden)
    return [{ isGood: true, words: 'Accounts have pseudonyms. What is saved is searched for their names.' }];
  const written = picturesIn(scene).reduce(
    (sum, { grips }) => sum + grips.filter(({ what }) => what === 'name').length,
    0,
  );
  return written === 0
    ? [{ isGood: true, words: 'No account is named.' }]
    : [
        {
          isGood: false,
          words: `${counted(written, 'account is', 'accounts are')} named: think of the people before you publish it.`,
        },
      ];
}
