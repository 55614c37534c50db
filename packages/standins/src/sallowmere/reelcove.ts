import { Random } from '@pebble/core';
import { makeAccounts, type DemoAccount } from './accounts';
import { DAYS, FIRST_DAY } from './clock';
import { GROUPS } from './groups';
import { WeightedChoice } from './random';
import { POSTS, REPLIES } from './texts';
import { fill, handwriting } from './writing';

const DAY = 86_400_000;

export interface DemoVideo {
  readonly video_id: string;
  readonly title: string;
  readonly channel: string;
  readonly channel_name: string;
  readonly published_at: string;
  readonly views: number;
  readonly likes: number;
  readonly description: string;
}

export interface DemoComment {
  readonly comment_id: string;
  readonly video_id: string;
  readonly author: string;
  readonly author_name: string;
  readonly text: string;
  readonly published_at: string;
  /** Id of the comment that is answered; empty for a comment on the video. */
  readonly parent_id: string;
  readonly likes: number;
}

/** Videos of Reelcove with what stands under them, and how many answers there are. */
export interface DemoVideos {
  readonly videos: readonly DemoVideo[];
  readonly comments: readonly DemoComment[];
  readonly truth: { readonly answers: number };
}

const CHANNELS: readonly (readonly [string, string])[] = [
  ['marsh_by_night', 'Marsh by Night'],
  ['sallow_sky_club', 'Sallowmere Sky Club'],
  ['ferry_cam', 'Ferry Cam'],
  ['quay_kitchen', 'Quay Kitchen'],
  ['council_live', 'Council Live'],
  ['harbour_post_video', 'Harbour Post Video'],
  ['walks_home', 'Walks Home'],
  ['lamp_workshop', 'The Lamp Workshop'],
  ['library_talks', 'Library Talks'],
  ['low_tide_radio', 'Low Tide Radio'],
  ['night_bus_diary', 'Night Bus Diary'],
  ['old_harbour_film', 'Old Harbour on Film'],
  ['keep_our_lights_tv', 'Keep Our Lights'],
  ['estuary_school', 'Estuary School'],
];
const TITLES = [
  'What amber light does to {place}',
  'We walked home at {hour}, filmed in one go',
  'The hearing of 24 March, all three hours',
  '{count} moths in one night at {place}',
  'Milky Way over {place}, no tricks',
  'Why the pilots want it darker',
  'Takings after nine: the traders count',
  '{org} answers your questions',
  'How a street lamp is aimed',
  'The night the power failed',
  'Reading the Late Lamp Plan aloud, page by page',
  'From the slip to {place} in the dark',
  'The vote, live',
  'A history of our lamps in {count} pictures',
  '“{topic}”: what people told us at {place}',
];

/** Writes videos and their comments. The same seed gives the same ones. */
export function makeVideos(videos = 60, comments = 5000, seed = 20260304): DemoVideos {
  const chance = new Random(seed);
  const people = makeAccounts(chance, 0.6).filter(({ group }) => group !== 'lone' && group !== 'passing');
  const list = Array.from({ length: videos }, (_, i) => makeVideo(chance, i));
  const writer = new CommentWriter(chance, people, list);
  const written = Array.from({ length: comments }, (_, i) => writer.next(i));
  return {
    videos: list,
    comments: written,
    truth: { answers: written.filter(({ parent_id }) => parent_id !== '').length },
  };
}

function makeVideo(chance: Random, i: number): DemoVideo {
  const [channel, name] = CHANNELS[i < CHANNELS.length ? i : chance.below(CHANNELS.length)];
  const views = Math.floor(80 + 60_000 / (1 + chance.below(120)));
  const title = fill(TITLES[i % TITLES.length], chance);
  return {
    video_id: `rc${1000 + i}`,
    title: i < TITLES.length ? title : `${title} (part ${1 + Math.floor(i / TITLES.length)})`,
    channel,
    channel_name: name,
    published_at: iso(FIRST_DAY + chance.below(DAYS - 2) * DAY + chance.below(DAY)),
    views,
    likes: Math.floor(views * (0.02 + 0.05 * chance.real())),
    description: `Filmed in Sallowmere. ${fill('Thanks to {org}.', chance)}`,
  };
}

class CommentWriter {
  private readonly authors: WeightedChoice<DemoAccount>;
  private readonly choice: WeightedChoice<DemoVideo>;
  private readonly under = new Map<string, DemoComment[]>();
  private readonly groups = new Map(GROUPS.map((plan) => [plan.name, plan]));

  constructor(
    private readonly chance: Random,
    people: readonly DemoAccount[],
    videos: readonly DemoVideo[],
  ) {
    this.authors = new WeightedChoice(people, ({ activity }) => activity + 0.01);
    this.choice = new WeightedChoice(videos, ({ views }) => Math.sqrt(views));
  }

  next(i: number): DemoComment {
    const { chance } = this;
    const video = this.choice.draw(chance);
    const before = this.under.get(video.video_id) ?? [];
    const author = this.authors.draw(chance);
    const parent = before.length > 0 && chance.chance(0.35) ? chance.pick(before.slice(-12)) : null;
    const plan = this.groups.get(author.group)!;
    const pattern = parent ? chance.pick(REPLIES) : chance.pick(POSTS[plan.name]);
    const start = parent ? Date.parse(parent.published_at) : Date.parse(video.published_at);
    const wait = Math.floor((chance.real() ** 3 * 6 + 0.001) * DAY);
    const comment: DemoComment = {
      comment_id: `c${100_000 + i}`,
      video_id: video.video_id,
      author: author.handle,
      author_name: author.name,
      text: handwriting(fill(pattern, chance), chance),
      published_at: iso(Math.min(start + wait, FIRST_DAY + DAYS * DAY - 1000)),
      parent_id: parent?.comment_id ?? '',
      likes: Math.floor(chance.real() ** 4 * 60),
    };
    before.push(comment);
    this.under.set(video.video_id, before);
    return comment;
  }
}

function iso(time: number): string {
  return `${new Date(time).toISOString().slice(0, 19)}Z`;
}
