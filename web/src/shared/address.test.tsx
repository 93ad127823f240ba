import { fireEvent, screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { show } from '../test/render';
import { useAddress } from './address';

function Place() {
  const { params, change, set, clear } = useAddress();
  return (
    <>
      <output>{params.toString()}</output>
      <button
        onClick={() => {
          set('drive', 'CHAIN');
          set('order', 'ACT_BY');
        }}
      >
        two at once
      </button>
      <button onClick={() => set('drive')}>without</button>
      <button
        onClick={() =>
          change((p) => {
            p.append('status', 'STOP');
            p.append('status', 'COMING');
          })
        }
      >
        many
      </button>
      <button onClick={clear}>clear</button>
    </>
  );
}

describe('what is asked for in the address', () => {
  it('takes a second change before the page is drawn with the first', () => {
    show(<Place />, '/?fleet=3');
    const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
    const text = () => screen.getByRole('status').textContent;
    press('two at once');
    expect(text()).toBe('fleet=3&drive=CHAIN&order=ACT_BY');
    press('without');
    expect(text()).toBe('fleet=3&order=ACT_BY');
    press('many');
    expect(text()).toBe('fleet=3&order=ACT_BY&status=STOP&status=COMING');
    press('clear');
    expect(text()).toBe('');
  });
});
