/** Nodes on the screen, by node of the network; radius 0 for nodes that are not shown. */
export interface ScreenNodes {
  readonly x: Float32Array;
  readonly y: Float32Array;
  readonly radius: Float32Array;
}
