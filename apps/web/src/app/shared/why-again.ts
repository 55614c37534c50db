import type { Network } from '@pebble/contract';
import { counted } from './words';

/** Why a network is to be woven again: something it was made from is not as it was. */
export function whyAgain({ forgotten, stale }: Pick<Network, 'forgotten' | 'stale'>): string {
  return [
    ...(forgotten > 0
      ? [
          `${counted(forgotten, 'person was', 'persons were')} forgotten since it was woven: messages are gone that made it.`,
        ]
      : []),
    ...(stale ? ['Other tidy decisions hold now than when it was woven.'] : []),
  ].join(' ');
}
