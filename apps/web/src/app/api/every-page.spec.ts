import type { PageQuery } from '@pebble/contract';
import { firstValueFrom, of } from 'rxjs';
import { everyPage } from './every-page';

describe('a list that is read page by page', () => {
  const listOf = (ids: number[]) => {
    const asked: PageQuery[] = [];
    const read = everyPage('rows', (page: PageQuery) => {
      asked.push(page);
      // A server may give fewer rows than it is asked for.
      const rows = ids.slice(page.offset, page.offset + 2).map((id) => ({ id }));
      return of({ total: ids.length, offset: page.offset, rows });
    });
    return { asked, read };
  };

  it('is whole', async () => {
    const { asked, read } = listOf([5, 4, 3, 2, 1]);
    expect(await firstValueFrom(read)).toEqual([5, 4, 3, 2, 1].map((id) => ({ id })));
    expect(asked.map(({ offset }) => offset)).toEqual([0, 2, 4]);
  });

  it('has a row once that moved on while it was read', async () => {
    expect(await firstValueFrom(listOf([3, 2, 2, 1]).read)).toEqual([{ id: 3 }, { id: 2 }, { id: 1 }]);
  });

  it('is empty where there is nothing', async () => {
    const { asked, read } = listOf([]);
    expect([await firstValueFrom(read), asked.length]).toEqual([[], 1]);
  });
});
