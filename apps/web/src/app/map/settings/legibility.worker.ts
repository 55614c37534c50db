/// <reference lib="webworker" />
import { legibility, type Graph } from '@pebble/core';

export interface LegibilityRequest {
  readonly graph: Graph;
  readonly nodes: Uint32Array;
  readonly edges: Uint32Array;
  readonly places: {
    readonly x: Float32Array;
    readonly y: Float32Array;
    readonly radius: Float32Array;
  };
}

addEventListener('message', ({ data }: MessageEvent<LegibilityRequest>) => {
  postMessage(legibility(data.graph, data.nodes, data.edges, data.places));
});
