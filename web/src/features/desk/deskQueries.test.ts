import { describe, expect, it } from 'vitest';
import { filterOf } from './deskQueries';

describe('the filter in the address', () => {
  it('is empty where nothing is asked', () => {
    expect(filterOf(new URLSearchParams())).toEqual({
      status: [],
      fleet: undefined,
      drive: undefined,
      q: '',
    });
  });

  it('reads every part', () => {
    expect(
      filterOf(new URLSearchParams('status=STOP&status=OVERDUE&fleet=3&drive=CHAIN&q=orde')),
    ).toEqual({
      status: ['STOP', 'OVERDUE'],
      fleet: 3,
      drive: 'CHAIN',
      q: 'orde',
    });
  });
});
