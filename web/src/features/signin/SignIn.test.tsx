import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { problem, serve, show } from '../../test/render';
import { SignIn, SignInForm } from './SignIn';

const me = {
  today: '2026-11-25',
  workshop: 'Garage',
  currency: 'EUR',
  unit: 'KM',
  numbers: 'COMMA_POINT',
  zone: 'UTC',
  firstRun: false,
};

const fill = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

describe('signing in', () => {
  it('waits for both fields, then tells whoever asked that it is done', async () => {
    const calls = serve({
      'GET /api/me': { body: me },
      'POST /api/sign-in': { body: { ...me, id: 1 } },
    });
    const done = vi.fn();
    show(<SignInForm onDone={done} />);
    const button = screen.getByRole('button', { name: 'Sign in' }) as HTMLButtonElement;
    expect(button.disabled).toBe(true);
    fill('Sign-in name', 'ines');
    fill('Password', 'skerrow-demo');
    fireEvent.click(button);
    await waitFor(() => expect(done).toHaveBeenCalled());
    expect(calls.find((c) => c.path === '/api/sign-in')!.body).toEqual({
      signIn: 'ines',
      password: 'skerrow-demo',
    });
  });

  it('keeps the name where the password is wrong', async () => {
    serve({
      'GET /api/me': { body: me },
      'POST /api/sign-in': problem('/password', 'They do not belong together.'),
    });
    show(<SignInForm />);
    fill('Sign-in name', 'ines');
    fill('Password', 'guess');
    fireEvent.click(screen.getByRole('button', { name: 'Sign in' }));
    await screen.findByText('They do not belong together.');
    expect((screen.getByLabelText('Sign-in name') as HTMLInputElement).value).toBe('ines');
  });

  it('asks for the printed code when nobody is there yet, and says what is wrong at each field', async () => {
    serve({
      'GET /api/me': { body: me },
      'POST /api/first-run': problem('/code', 'That is not the code.'),
    });
    show(<SignIn workshop="Garage" firstRun />);
    expect(screen.getByText('The manager’s account')).toBeTruthy();
    fill('Code', '1');
    fireEvent.click(screen.getByRole('button', { name: 'Create the account' }));
    await screen.findByText('That is not the code.');
  });
});
