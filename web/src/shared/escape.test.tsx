import { fireEvent, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { expect, it } from 'vitest';
import { show } from '../test/render';
import { useEscape } from './escape';
import { CardForm } from './forms';

function Page() {
  const [open, setOpen] = useState(false);
  useEscape();
  return (
    <main>
      <section>
        <button>Something else</button>
        {open ? (
          <CardForm
            title="Note a call"
            submit="Keep it"
            error={null}
            pending={false}
            onSubmit={() => undefined}
            onClose={() => setOpen(false)}
          >
            <input aria-label="What was said" autoFocus />
          </CardForm>
        ) : (
          <button onClick={() => setOpen(true)}>Note a call</button>
        )}
      </section>
      <form>
        <input aria-label="Find" />
      </form>
    </main>
  );
}

const esc = () => fireEvent.keyDown(document.activeElement!, { key: 'Escape' });

function opened() {
  show(<Page />);
  fireEvent.click(screen.getByRole('button', { name: 'Note a call' }));
  return screen.getByLabelText('What was said');
}

it('leaves a form nobody typed in, and goes back to the button it came from', async () => {
  opened().focus();
  esc();
  const button = screen.getByRole('button', { name: 'Note a call' });
  await waitFor(() => expect(document.activeElement).toBe(button));
});

it('asks by going to the way out where something was typed', () => {
  const field = opened();
  field.focus();
  fireEvent.input(field, { target: { value: 'he rings back' } });
  esc();
  expect(screen.getByLabelText<HTMLInputElement>('What was said').value).toBe('he rings back');
  expect(document.activeElement).toBe(screen.getByRole('button', { name: 'Leave it' }));
  esc();
  expect(screen.queryByLabelText('What was said')).toBeNull();
});

it('leaves the field where a form has no way out', () => {
  show(<Page />);
  const field = screen.getByLabelText('Find');
  field.focus();
  esc();
  expect(document.activeElement).toBe(document.body);
});
