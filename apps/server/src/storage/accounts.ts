import { Profile, type AccountPage, type AccountQuery } from '@pebble/contract';
import { sql } from 'kysely';
import { isAmong } from './lists';
import type { Store } from './open';

const ORDER: Readonly<Record<AccountQuery['by'], string>> = {
  messages: 'messages',
  addressed: 'addressed',
  followersHere: 'followers_here',
  followingHere: 'following_here',
  handle: 'handle',
};

/** A page of the accounts of a study, with what they did and what is told of them. */
export async function readAccounts(
  { query }: Store,
  { search, by, falling, offset, limit }: AccountQuery,
): Promise<AccountPage> {
  const like = `%${search
    .trim()
    .replace(/^@/, '')
    .replace(/[\\%_]/g, '\\$&')}%`;
  const fits = sql`(handle like ${like} escape '\\' or coalesce(name, '') like ${like} escape '\\')`;
  const { rows: totals } = await sql<{ n: number }>`select count(*) as n from account where ${fits}`.execute(
    query,
  );
  const order = sql`${sql.ref(ORDER[by])} ${sql.raw(falling === 'true' && by !== 'handle' ? 'desc' : 'asc')}`;
  const { rows } = await sql<Row>`
    with wrote as (
      select author_id as id, count(*) as n, min(time) as first, max(time) as last
      from message group by author_id),
    named as (
      select to_id as id, count(*) as n from address
      where kinds > 0 and from_id <> to_id group by to_id),
    followed as (
      select followed_id as id, count(distinct follower_id) as n from follow group by followed_id),
    follows as (
      select follower_id as id, count(distinct followed_id) as n from follow group by follower_id)
    select a.id, a.handle, a.name, coalesce(w.n, 0) as messages, coalesce(d.n, 0) as addressed,
      coalesce(f.n, 0) as followers_here, coalesce(g.n, 0) as following_here, w.first, w.last
    from (select * from account where ${fits}) a
      left join wrote w on w.id = a.id left join named d on d.id = a.id
      left join followed f on f.id = a.id left join follows g on g.id = a.id
    order by ${order}, a.handle limit ${limit} offset ${offset}`.execute(query);
  const profiles = await readProfiles(
    { query },
    rows.map(({ id }) => id),
  );
  return {
    total: totals[0].n,
    accounts: rows.map(({ followers_here, following_here, ...row }) => ({
      ...row,
      followersHere: followers_here,
      followingHere: following_here,
      profile: profiles.get(row.id) ?? NOTHING,
    })),
  };
}

interface Row {
  readonly id: number;
  readonly handle: string;
  readonly name: string | null;
  readonly messages: number;
  readonly addressed: number;
  readonly followers_here: number;
  readonly following_here: number;
  readonly first: number | null;
  readonly last: number | null;
}

const NOTHING: Profile = { joined: null, location: null, description: null, numbers: {}, attributes: {} };

/** What is told of accounts: of several sources the latest holds, and what it does not tell stays. */
export async function readProfiles(
  { query }: Pick<Store, 'query'>,
  accounts: readonly number[],
): Promise<Map<number, Profile>> {
  const rows = await query
    .selectFrom('profile')
    .select(['account_id', 'profile'])
    .where(isAmong('account_id', accounts))
    .orderBy('source_id')
    .execute();
  const profiles = new Map<number, Profile>();
  for (const row of rows) {
    const told = Profile.parse(JSON.parse(row.profile));
    const before = profiles.get(row.account_id) ?? NOTHING;
    profiles.set(row.account_id, {
      joined: told.joined ?? before.joined,
      location: told.location ?? before.location,
      description: told.description ?? before.description,
      numbers: { ...before.numbers, ...told.numbers },
      attributes: { ...before.attributes, ...told.attributes },
    });
  }
  return profiles;
}
