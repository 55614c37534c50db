import { defaultMap, MapDescription, Weave } from '@pebble/contract';
import { firstMap } from '.';

const first = (weave: object | null, directed = true): MapDescription =>
  MapDescription.parse(firstMap(weave && Weave.parse(weave), directed));

describe('the map of a new network', () => {
  it('is sized by who is addressed, or by ties where these have no direction', () => {
    expect(first(null)).toEqual(defaultMap);
    expect(first(null, false).size.column).toBe('degree');
    expect(first({ what: 'accounts', kinds: ['reply'] }).size.column).toBe('inDegree');
  });

  it('has fewer names where these are long: of emails, and of videos, whose titles are broken in two', () => {
    const mail = first({ what: 'accounts', kinds: ['to', 'cc'] });
    expect(mail.names.count).toBeLessThan(defaultMap.names.count);
    const videos = first({ what: 'together', things: 'item', unit: 'author' }, false);
    expect(videos.names).toMatchObject({ count: 15, length: 'two lines' });
    expect(first({ what: 'together', things: 'hashtag' }, false).names.count).toBe(defaultMap.names.count);
  });

  it('tells two sorts of nodes by colour and shape', () => {
    const { colour, shape } = first({ what: 'two-mode', things: 'hashtag' }, false);
    expect([colour.column, shape.column]).toEqual(['mode', 'mode']);
  });
});
