import type { AddressKind, Scale, Weave } from '@pebble/contract';
import { counted, joinWith } from './sentence';
import { THING_WORDS } from './words';

const DID: Readonly<Record<AddressKind, string>> = {
  reply: 'answered',
  comment: 'answered a comment of',
  quote: 'quoted',
  mention: 'mentioned',
  repost: 'reposted',
  to: 'wrote to',
  cc: 'sent a copy to',
  bcc: 'sent a blind copy to',
};
const WEIGHED: Readonly<Record<Exclude<Scale, 'count'>, string>> = {
  newman:
    'Each shared one counts 1 / (k - 1) where k have it, so that what many share ties less (Newman 2001).',
  jaccard: 'The weight is what both have, over what either has: 1 where they have the same (Jaccard).',
  cosine:
    'The weight is what both have, over the root of the product of what each has: 1 where they are alike.',
};

/** What a tie of a weave means, in plain words. */
export function meaningOf(weave: Weave): string {
  switch (weave.what) {
    case 'accounts': {
      const did = joinWith(
        'or',
        weave.kinds.map((kind) => DID[kind]),
      );
      const repost =
        weave.kinds.includes('repost') && weave.repostMentions
          ? ' A repost counts for its author and for each account mentioned in the reposted text.'
          : '';
      return weave.share === 'divided'
        ? `A message to four accounts adds ¼ to each of four ties. At least so many messages are needed for a tie.${repost}`
        : `A tie of weight 3 from A to B means: A ${did} B in three messages.${repost}`;
    }
    case 'together': {
      if (weave.scale !== 'count') return WEIGHED[weave.scale];
      if (weave.weight === 'authors' && weave.unit !== 'author')
        return 'A tie of weight 3 between A and B means: three accounts wrote what stands behind it.';
      const unit = {
        message: 'A and B stand together in three messages',
        near: `A and B stand within ${counted(weave.within, 'word')} of each other in three messages`,
        thread: 'A and B both stand in three threads, not always in one message',
        author: 'three accounts used both, not always at once',
        'author-day': 'three times an account used both on one day',
      }[weave.unit];
      return `A tie of weight 3 between A and B means: ${unit}.`;
    }
    case 'shared':
      return weave.scale === 'count'
        ? `A tie of weight 3 between A and B means: three ${THING_WORDS[weave.things][1]} that both use.`
        : WEIGHED[weave.scale];
    case 'two-mode':
      return `A tie of weight 3 from an account to a ${THING_WORDS[weave.things][0]} means: it did so in three messages.`;
    case 'follows':
      if (weave.sorts === 'two')
        return 'A tie from A to the list B means: A follows B, as the lists say. A listed account that follows another stands as a follower and as a list.';
      return 'A tie from A to B means: A follows B, as the lists say. The map colours every follower by which of the listed accounts it follows.';
    case 'in-step':
      return `A tie of weight 3 between A and B means: with three different ones, both posted the same within ${counted(weave.seconds, 'second')}. Each tie also says how likely that is by chance, given what both post and how often; people who answer one event together look alike, so read the messages before you call it coordination.`;
    case 'alike':
      return `${
        weave.likeness > 0
          ? `A tie of weight 0.8 between A and B means: of all words of either, both have 80 %.`
          : `A tie of weight 8 between A and B means: they share eight words.`
      } Order, repeats and very common words do not count; ${weave.nodes === 'message' ? 'short messages are easily alike' : 'accounts that write much easily share words'}.`;
    case 'projection':
      return weave.scale === 'count'
        ? 'A tie of weight 3 between A and B means: they share three nodes of the other sort.'
        : WEIGHED[weave.scale];
    case 'groups':
      return 'Each group becomes one node, sized by its members. Weights of all ties between two groups are added up; those within a group are a tie to itself.';
  }
}
