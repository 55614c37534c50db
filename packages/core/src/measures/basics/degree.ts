import { inRows, neighbourRows, outRows, type Csr } from '../../graph/csr';
import type { Graph } from '../../graph/graph';

/** Degrees count distinct partners, strengths add the weights of their ties. Self-loops are counted in neither. */
export interface Degrees {
  readonly inDegree: Uint32Array;
  readonly outDegree: Uint32Array;
  /** Distinct partners in either direction; at most inDegree + outDegree. */
  readonly degree: Uint32Array;
  readonly inStrength: Float64Array;
  readonly outStrength: Float64Array;
  readonly strength: Float64Array;
  /** Weight of the ties of a node to itself. */
  readonly selfWeight: Float64Array;
}

/**
 * Degree and strength of every node of a directed graph (Freeman 1979, Social Networks 1; Barrat et al. 2004, PNAS 101,
 * for strength). Range: degree 0 to nodes - 1; strength 0 to the sum of all weights.
 */
export function degrees(graph: Graph): Degrees {
  const into = rowSums(inRows(graph));
  const out = rowSums(outRows(graph));
  const both = rowSums(neighbourRows(graph));
  return {
    inDegree: into.partners,
    outDegree: out.partners,
    degree: both.partners,
    inStrength: into.weight,
    outStrength: out.weight,
    strength: both.weight,
    selfWeight: out.self,
  };
}

function rowSums(rows: Csr): { partners: Uint32Array; weight: Float64Array; self: Float64Array } {
  const partners = new Uint32Array(rows.nodeCount);
  const weight = new Float64Array(rows.nodeCount);
  const self = new Float64Array(rows.nodeCount);
  for (let v = 0; v < rows.nodeCount; v++) {
    for (let i = rows.offset[v]; i < rows.offset[v + 1]; i++) {
      if (rows.neighbour[i] === v) {
        self[v] += rows.weight[i];
      } else {
        partners[v]++;
        weight[v] += rows.weight[i];
      }
    }
  }
  return { partners, weight, self };
}
