import type { PortraitThing } from '@pebble/contract';

/** A row of portraits beside each other. */
interface Row {
  readonly id: string;
  readonly title: string;
  /** What stands in it, for those who do not know. */
  readonly how: string;
  /** Terms that it lists; a heading stands over each where there are several. */
  readonly things?: readonly PortraitThing[];
  /** Whether there is more of it than is shown at first. */
  readonly isLong: boolean;
}

const OF_MESSAGES: readonly Row[] = [
  {
    id: 'hashtags',
    title: 'Hashtags',
    how: 'Typical is what stands in a clearly larger share of its messages than elsewhere; the number opens the messages',
    things: ['hashtag'],
    isLong: true,
  },
  {
    id: 'words',
    title: 'Words',
    how: 'Words that say something, in small letters; each message counts once',
    things: ['word'],
    isLong: true,
  },
  {
    id: 'links',
    title: 'Links',
    how: 'Domains and whole links that messages lead to',
    things: ['domain', 'link'],
    isLong: true,
  },
  {
    id: 'others',
    title: 'Names, signs, languages, codes',
    how: 'Names are there once they were looked for in Gather, codes once messages were coded; those that nobody coded count as without',
    things: ['name', 'emoji', 'language', 'code'],
    isLong: true,
  },
  {
    id: 'speech',
    title: 'How they speak',
    how: 'In brackets all others of the network; tone and incivility once they were scored in Gather',
    isLong: false,
  },
  {
    id: 'when',
    title: 'When',
    how: 'Bars: share of the group’s messages on each day; line: of all messages. A click opens the day',
    isLong: false,
  },
];

/** The rows, in their order; those of messages only where there are any. */
export function rowsOf(hasMessages: boolean): readonly Row[] {
  return [
    { id: 'sentence', title: 'In one sentence', how: 'Made of counts alone', isLong: false },
    { id: 'who', title: 'Who', how: 'Self-ties do not count', isLong: true },
    ...(hasMessages ? OF_MESSAGES : []),
    {
      id: 'between',
      title: 'Ties to others',
      how: 'Weight of the ties out of the group and into it',
      isLong: true,
    },
    ...(hasMessages
      ? [
          {
            id: 'said',
            title: 'What they said',
            how: 'What you keep as a quotation stays with the portrait',
            isLong: true,
          },
        ]
      : []),
    { id: 'memo', title: 'Memo', how: 'Your own words; kept when you leave the field', isLong: false },
  ];
}
