import { numbersOf } from '../../network/tables';
import type { MapNetwork } from './mapNetwork';
import { messagesWithin } from './dailyTieCounts';

/**
 * The network as it was in a period: where the weight of its ties is their number of messages, it becomes that of the messages in the period.
 * Without the messages of each day, and for other weights, it stays as it is.
 */
export function weighedWithin(
  network: MapNetwork,
  period: { readonly from: number | null; readonly until: number | null } | null,
): MapNetwork {
  const { dailyTieCounts, edges } = network;
  if (!period || !dailyTieCounts) return network;
  const weight = numbersOf(edges, 'weight');
  const always = messagesWithin(dailyTieCounts, weight.length, { from: null, until: null });
  const dated = datedOnly(edges['first']);
  for (let e = 0; e < weight.length; e++) if (dated(e) && always[e] !== weight[e]) return network;
  return {
    ...network,
    edges: { ...edges, weight: messagesWithin(dailyTieCounts, weight.length, period) },
  };
}

/** Ties without any date have no dailyTieCounts. */
function datedOnly(first: ArrayLike<number | string> | undefined): (edge: number) => boolean {
  return (e) => first === undefined || !Number.isNaN(Number(first[e]));
}
