import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { expect, it, vi } from 'vitest';
import { DateField } from './DateField';
import { NumberField } from './NumberField';

function Numbers({
  sent,
  ...rest
}: { sent: (n?: number) => void } & Partial<Parameters<typeof NumberField>[0]>) {
  const [value, setValue] = useState<number>();
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        sent(value);
      }}
    >
      <label htmlFor="n">Figure</label>
      <NumberField id="n" value={value} onChange={setValue} {...rest} />
      <button type="submit">Send</button>
    </form>
  );
}

const type = (label: string, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } });
const send = () => fireEvent.click(screen.getByText('Send'));

it('says what it understood where that is not what was typed', () => {
  const sent = vi.fn();
  render(<Numbers sent={sent} unit="months" />);
  type('Figure', '5 years');
  expect(screen.getByText('= 60 months')).toBeTruthy();
  send();
  expect(sent).toHaveBeenCalledWith(60);
});

it('keeps back what is no number, and says so', () => {
  const sent = vi.fn();
  render(<Numbers sent={sent} unit="km" />);
  type('Figure', 'about 12');
  expect(screen.getByText('“about 12” is not a number.')).toBeTruthy();
  send();
  expect(sent).not.toHaveBeenCalled();
  type('Figure', '12 l');
  expect(screen.getByText('This is counted in km.')).toBeTruthy();
});

it('asks about a value far from usual until it is said to be so', () => {
  const sent = vi.fn();
  render(<Numbers sent={sent} suffix="EUR" decimals={2} usual={[20, 400]} />);
  type('Figure', '9,850');
  send();
  expect(sent).not.toHaveBeenCalled();
  fireEvent.click(screen.getByText('Yes, 9,850 EUR'));
  send();
  expect(sent).toHaveBeenCalledWith(9850);
});

it('asks which of two a number is', () => {
  const sent = vi.fn();
  render(<Numbers sent={sent} unit="mm" decimals={3} />);
  type('Figure', '2,500');
  send();
  expect(sent).not.toHaveBeenCalled();
  fireEvent.click(screen.getByText('2.5 mm?'));
  send();
  expect(sent).toHaveBeenCalledWith(2.5);
});

function Days({ sent, max }: { sent: (d?: string) => void; max?: string }) {
  const [value, setValue] = useState<string>();
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        sent(value);
      }}
    >
      <label htmlFor="d">Day</label>
      <DateField id="d" value={value} onChange={setValue} today="2026-11-28" max={max} />
      <button type="submit">Send</button>
    </form>
  );
}

it('takes a day as it is typed, shows it as the app writes days, and steps by keys', () => {
  const sent = vi.fn();
  render(<Days sent={sent} />);
  type('Day', '3.4.19');
  expect(screen.getByText('= 3 Apr 2019')).toBeTruthy();
  fireEvent.blur(screen.getByLabelText('Day'));
  fireEvent.keyDown(screen.getByLabelText('Day'), { key: 'ArrowUp' });
  expect(screen.getByLabelText<HTMLInputElement>('Day').value).toBe('4 Apr 2019');
  fireEvent.keyDown(screen.getByLabelText('Day'), { key: 'PageDown' });
  send();
  expect(sent).toHaveBeenCalledWith('2019-03-04');
});

it('asks which day is meant, and keeps back one that is too late', () => {
  const sent = vi.fn();
  render(<Days sent={sent} max="2026-11-28" />);
  type('Day', '03/04/2026');
  send();
  expect(sent).not.toHaveBeenCalled();
  fireEvent.click(screen.getByText('4 Mar 2026?'));
  send();
  expect(sent).toHaveBeenCalledWith('2026-03-04');
  type('Day', '1.12.2026');
  expect(screen.getByText('Not after 28 Nov 2026.')).toBeTruthy();
  send();
  expect(sent).toHaveBeenCalledTimes(1);
});
