import type { LegendCorner, LegendPart, MapDescription } from '@pebble/contract';

type Legend = MapDescription['legend'];

/** The legend with another heading over a part; the usual one where the text is empty. */
export function withHeading({ headings }: Legend, part: LegendPart, text: string): Pick<Legend, 'headings'> {
  const { [part]: _before, ...others } = headings;
  return { headings: text ? { ...others, [part]: text } : others };
}

/** The legend with another name for a group; the usual one where the text is empty. */
export function withGroupName({ names }: Legend, key: string, text: string): Pick<Legend, 'names'> {
  const { [key]: _before, ...others } = names;
  return { names: text ? { ...others, [key]: text } : others };
}

/** The corner that is nearest to a point of the picture. */
export function cornerAt(x: number, y: number, size: { width: number; height: number }): LegendCorner {
  return `${y < size.height / 2 ? 'upper' : 'lower'} ${x < size.width / 2 ? 'left' : 'right'}`;
}
