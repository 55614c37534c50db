import type { Theme } from '../style/palette';
import type { PreparedMap } from './prepare';
import type { Size, View } from './view';

/** What is picked out on the map; everything else fades. */
export interface Focus {
  /** Nodes picked by the reader. */
  readonly nodes: ReadonlySet<number>;
  /** Nodes that stay clear beside them. */
  readonly around: ReadonlySet<number>;
  /** Edges of the network that are drawn strong. */
  readonly edges: ReadonlySet<number>;
}

export interface SceneInput {
  readonly map: PreparedMap;
  readonly x: Float32Array;
  readonly y: Float32Array;
  readonly view: View;
  readonly size: Size;
  readonly theme: Theme;
  readonly focus: Focus | null;
}
