import { fireEvent, render, screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { Bench, Card } from './cardQueries';
import { PartsInHand, ToolPieces } from './PartsInHand';

const belt = {
  item: 'belt',
  name: 'Timing belt',
  number: 'B-145',
  partName: 'Timing belt',
  quantity: 1,
  ownerSupplied: false,
  counted: 'teeth',
  book: { teeth: 145, widthMm: 25.4 },
  wrong: [] as string[],
  notes: [],
};

const card = (part: Partial<Card>) =>
  ({ parts: [], kits: [], tools: [], ...part }) as unknown as Card;

function bench() {
  const enter = vi.fn(() => Promise.resolve(true));
  return { enter, as: { enter, busy: false } as unknown as Bench };
}

describe('parts and tools in hand', () => {
  it('shows what was ordered beside what it must measure, and enters what was seen', () => {
    const { enter, as } = bench();
    render(<PartsInHand card={card({ parts: [belt] })} bench={as} />);
    expect(screen.getByText('145 teeth, 25.4 mm wide')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'measure' }));
    fireEvent.change(screen.getByLabelText('Teeth'), { target: { value: '146' } });
    fireEvent.change(screen.getByLabelText('Width, mm'), { target: { value: '25,4' } });
    fireEvent.click(screen.getByRole('button', { name: 'Enter what was seen' }));
    expect(enter).toHaveBeenCalledWith(
      expect.objectContaining({ type: 'PART', item: 'belt', teeth: 146, widthMm: 25.4 }),
    );
  });

  it('does not send a figure that cannot be read', () => {
    const { as } = bench();
    render(<PartsInHand card={card({ parts: [belt] })} bench={as} />);
    fireEvent.click(screen.getByRole('button', { name: 'measure' }));
    const send = screen.getByRole<HTMLButtonElement>('button', { name: 'Enter what was seen' });
    expect(send.disabled).toBe(true);
    fireEvent.change(screen.getByLabelText('Teeth'), { target: { value: 'many' } });
    expect(send.disabled).toBe(true);
    expect(screen.getByText('One of the figures cannot be read.')).toBeTruthy();
  });

  it('says what does not agree, and what a kit leaves out', () => {
    const seen = { ...belt, seen: { teeth: 146 }, wrong: ['146 teeth or links, the book has 145'] };
    const kit = {
      number: 'K-1',
      name: 'belt kit',
      holds: ['Timing belt'],
      lacks: ['Water pump'],
      leavesOut: 'the crank bolt',
    };
    render(<PartsInHand card={card({ parts: [seen], kits: [kit] })} bench={bench().as} />);
    expect(screen.getByText('146 teeth or links, the book has 145')).toBeTruthy();
    expect(screen.queryByText('fits')).toBeNull();
    expect(
      screen.getByText(/holds timing belt. Not in it: water pump. It leaves out/),
    ).toBeTruthy();
  });

  it('tells of one tool that is missing, in words', () => {
    const { enter, as } = bench();
    const tools = [
      { name: 'crank pin', use: 'crank', count: 1 },
      { name: 'cam bar', use: '', count: 1, failed: 'broken' },
    ];
    render(<ToolPieces card={card({ tools })} bench={as} />);
    expect(screen.getByText(/broken; Stores and the Board know/)).toBeTruthy();
    fireEvent.click(screen.getAllByRole('button', { name: 'broken or missing' })[0]!);
    fireEvent.change(screen.getByLabelText(/What is wrong/), { target: { value: 'lent' } });
    fireEvent.click(screen.getByRole('button', { name: 'It is missing' }));
    expect(enter).toHaveBeenCalledWith({
      type: 'TOOL_FAILED',
      piece: 'crank pin',
      missing: true,
      words: 'lent',
    });
  });
});
