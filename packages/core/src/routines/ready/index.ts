import { Routine, type KeptRoutine } from '@pebble/contract';
import { postsInStep } from './postsInStep';
import { emailArchive } from './emailArchive';
import { hashtagsTogether } from './hashtagsTogether';
import { sharedAudiences } from './sharedAudiences';
import { sharedCommenters } from './sharedCommenters';
import { whoAddressesWhom } from './whoAddressesWhom';

/** Routines that come with the application, for what is asked most. */
export const READY_ROUTINES: readonly KeptRoutine[] = Object.entries({
  'who-talks-to-whom': whoAddressesWhom,
  'hashtags-together': hashtagsTogether,
  'email-archive': emailArchive,
  'shared-audiences': sharedAudiences,
  'shared-commenters': sharedCommenters,
  'posts-in-step': postsInStep,
}).map(([id, routine]) => ({ id, routine: Routine.parse(routine), isReady: true, changedAt: null }));
