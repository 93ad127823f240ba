import { fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { setSingleKeys, singleKeys, useKeys } from './keyboard';

afterEach(() => {
  setSingleKeys(true);
});

function Place({ onKey }: { onKey: () => void }) {
  useKeys({ o: onKey });
  return (
    <>
      <input aria-label="text" />
      <div contentEditable data-testid="prose" />
      <button>button</button>
    </>
  );
}

describe('single keys', () => {
  it('act, but never in the way of typing or of the browser’s own', () => {
    const key = vi.fn();
    render(<Place onKey={key} />);
    fireEvent.keyDown(screen.getByLabelText('text'), { key: 'o' });
    fireEvent.keyDown(document.body, { key: 'o', ctrlKey: true });
    fireEvent.keyDown(document.body, { key: 'x' });
    expect(key).not.toHaveBeenCalled();
    fireEvent.keyDown(document.body, { key: 'o' });
    fireEvent.keyDown(screen.getByText('button'), { key: 'o' });
    expect(key).toHaveBeenCalledTimes(2);
  });

  it('are silent when somebody has switched them off', () => {
    const key = vi.fn();
    render(<Place onKey={key} />);
    setSingleKeys(false);
    fireEvent.keyDown(document.body, { key: 'o' });
    expect(singleKeys()).toBe(false);
    expect(key).not.toHaveBeenCalled();
  });
});
