import type {
  CollectEstimate,
  CollectPlan,
  ServiceDescription,
  ServiceKind,
  ServiceLimits,
} from '@pebble/contract';
import type { ServiceClient } from './serviceClient';

/** What came with one advance: objects of the service's standard, each with the id by which it is known again. */
export interface Collected {
  readonly id: string;
  readonly what: 'messages' | 'items' | 'follows' | 'profiles' | 'deleted';
  readonly object: unknown;
}

export interface Advance {
  readonly records: readonly Collected[];
  /** Where to go on, as plain JSON; null when all is collected. */
  readonly place: unknown;
  readonly share: number | null;
  readonly notes?: readonly string[];
  readonly expandedLinks?: number;
  /** A list that came to its end, or was cut where as much had come as was asked for. */
  readonly list?: 'whole' | 'cut';
  /** The state of the service when all was read, for services that can tell what changed since. */
  readonly state?: string | null;
}

/** What a run that goes on from another one knows: only what is newer is wanted. */
export interface Since {
  /** Milliseconds since 1970. */
  readonly time: number | null;
  /** The state of a mail service when it was last asked. */
  readonly state: string | null;
}

/** Everything that is particular to one kind of service; one file for each. */
export interface Connector {
  readonly kind: ServiceKind;
  describe(client: ServiceClient): Promise<ServiceDescription>;
  /** Requests that a plan takes at most, and what is to be known before. */
  estimate(plan: CollectPlan, limits: ServiceLimits): Pick<CollectEstimate, 'requests' | 'notes'>;
  /**
   * Asks for a little and says where to go on. It may be called again with the same place after a fault.
   * @param place null at the beginning
   * @param isNew whether a record's id was not met before in this run
   */
  advance(
    client: ServiceClient,
    plan: CollectPlan,
    place: unknown,
    since: Since,
    isNew: (id: string) => boolean,
  ): Promise<Advance>;
}

/** Pages that so many things take. */
export function pages(count: number, pageSize: number): number {
  return Math.max(1, Math.ceil(count / pageSize));
}
