import { numbersOf } from '../network/tables';
import type { MapNetwork } from './mapNetwork';
import { messagesWithin } from './moments';

/**
 * The network as it was in a period: where the weight of its ties is their number of messages, it becomes that of the messages in the period.
 * Without moments, and for other weights, it stays as it is.
 */
export function weighedWithin(
  network: MapNetwork,
  period: { readonly from: number | null; readonly until: number | null } | null,
): MapNetwork {
  const { moments, edges } = network;
  if (!period || !moments) return network;
  const weight = numbersOf(edges, 'weight');
  const always = messagesWithin(moments, weight.length, { from: null, until: null });
  const dated = datedOnly(edges['first']);
  for (let e = 0; e < weight.length; e++) if (dated(e) && always[e] !== weight[e]) return network;
  return {
    ...network,
    edges: { ...edges, weight: messagesWithin(moments, weight.length, period) },
  };
}

/** Ties without any date have no moments. */
function datedOnly(first: ArrayLike<number | string> | undefined): (edge: number) => boolean {
  return (e) => first === undefined || !Number.isNaN(Number(first[e]));
}
