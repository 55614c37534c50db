import { DiscGrid } from '../../scene/discGrid';
import { MESSAGE_KINDS } from '../../../network/tieKinds';
import { numbersOf } from '../../../network/tables';
import { formatValue } from '../../../words/formatValue';
import type { TextBox } from '../notes/calloutLine';
import type { PreparedMap } from '../../scene/prepare';
import { boxBehind, type TextMark } from '../../scene/scene';
import type { SceneInput } from '../../scene/sceneInput';
import type { ScreenNodes } from '../../scene/screenNodes';
import { TakenBoxes } from '../../scene/takenBoxes';
import { clipText } from '../../style/textWidth';
import { loopTop } from './ties';
import { middleOfTie, routesOf, wayOfTie } from './tieRoutes';

const SIZE = 10.5;
/** A longer name of a tie is shortened, in pixels. */
const LONGEST = 130;

/** What the name of a tie says; empty for a tie without one. */
export function tieNameOf({ network: { edges } }: PreparedMap, column: string, edge: number): string {
  if (column === 'kinds')
    return MESSAGE_KINDS.filter(([kind]) => kind in edges && numbersOf(edges, kind)[edge] > 0)
      .map(([kind, one, many]) => {
        const count = numbersOf(edges, kind)[edge];
        return `${formatValue(count)} ${count === 1 ? one : many}`;
      })
      .join(', ');
  const values = edges[column];
  if (values === undefined) return '';
  const value = values[edge];
  if (typeof value === 'string') return value;
  return Number.isNaN(value) ? '' : formatValue(value);
}

/**
 * Names at the middle of the strongest ties that can be seen; one that would cover a node, another name or a note is left out.
 * @param taken boxes that no name may cover
 */
export function buildTieNames(
  { map, theme, focus, size }: SceneInput,
  nodes: ScreenNodes,
  taken: readonly TextBox[],
): TextMark[] {
  const { ties } = map.description;
  if (ties.names.column === null || ties.names.count === 0) return [];
  const { column, count } = ties.names;
  const weight = numbersOf(map.network.edges, 'weight');
  const middle = middles(map, nodes);
  const seen = map.drawn.filter((e) => {
    if (focus ? !focus.edges.has(e) : ties.shown === 'of selection') return false;
    const [x, y] = middle(e);
    return x > 0 && x < size.width && y > 0 && y < size.height;
  });
  const strongest = Array.from(seen).sort((a, b) => weight[b] - weight[a] || a - b);
  const grid = new DiscGrid(nodes, size);
  const coversNode = ({ left, top, right, bottom }: TextBox): boolean => {
    let covers = false;
    grid.forEachIn(left, top, right, bottom, () => (covers = true));
    return covers;
  };
  const boxes = new TakenBoxes(size.height);
  for (const box of taken) boxes.add(box);
  const texts: TextMark[] = [];
  for (const e of strongest) {
    if (texts.length >= count) break;
    const text = clipText(tieNameOf(map, column, e), SIZE, 'plain', LONGEST);
    if (text === '') continue;
    const [x, y] = middle(e);
    const mark: TextMark = {
      text,
      x,
      y: y + SIZE * 0.32,
      size: SIZE,
      face: 'plain',
      anchor: 'middle',
      fill: theme.soft,
      halo: theme.ground,
      alpha: 1,
    };
    const box = boxBehind(mark);
    if (boxes.touch(box) || coversNode(box)) continue;
    boxes.add(box);
    texts.push(mark);
  }
  return texts;
}

/** Where the middle of each tie is, by its route. */
function middles(map: PreparedMap, nodes: ScreenNodes): (edge: number) => readonly [number, number] {
  const source = numbersOf(map.network.edges, 'source');
  const target = numbersOf(map.network.edges, 'target');
  const route = routesOf(map, nodes);
  const way = wayOfTie();
  const { x, y, radius } = nodes;
  return (e) => {
    const [a, b] = [source[e], target[e]];
    if (a === b) return [x[a], loopTop(y[a], radius[a])];
    return middleOfTie(route, nodes, e, a, b, way);
  };
}
