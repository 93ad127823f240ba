import { describe, expect, it } from 'vitest';
import { filterOf, filterText } from './deskQueries';

describe('the filter in the address', () => {
  it('is empty where nothing is asked', () => {
    const filter = filterOf(new URLSearchParams('sel=12'));
    expect(Object.values(filter).filter((v) => v !== undefined)).toEqual([]);
  });

  it('reads every part', () => {
    expect(
      filterOf(
        new URLSearchParams(
          'status=STOP&status=OVERDUE&fleet=3&drive=CHAIN&q=orde&within=0&aside=true' +
            '&order=ACT_BY&family=CAL-16&interference=NO&state=SOLD',
        ),
      ),
    ).toEqual({
      status: ['STOP', 'OVERDUE'],
      fleet: 3,
      drive: 'CHAIN',
      family: 'CAL-16',
      interference: 'NO',
      within: 0,
      state: ['SOLD'],
      q: 'orde',
      aside: true,
      order: 'ACT_BY',
    });
  });

  it('is kept under a name without the vehicle that happens to be selected', () => {
    const params = new URLSearchParams('sel=12&status=STOP&status=COMING&q=van');
    expect(filterText(params)).toBe('status=STOP&status=COMING&q=van');
    expect(filterOf(new URLSearchParams(filterText(params)))).toEqual(filterOf(params));
  });
});
