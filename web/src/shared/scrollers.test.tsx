import { act, render, screen } from '@testing-library/react';
import type { ReactNode } from 'react';
import { expect, it } from 'vitest';
import { useScrollers } from './scrollers';

/** A table of a width, in a place of another; jsdom lays nothing out. */
function Table({ wide, place, overflow = 'auto', children }: Record<string, ReactNode>) {
  return (
    <table
      className="plain"
      style={{ overflowX: overflow as 'auto' }}
      ref={(t) => {
        if (!t) return;
        Object.defineProperty(t, 'scrollWidth', { value: wide });
        Object.defineProperty(t, 'clientWidth', { value: place });
      }}
    >
      <tbody>
        <tr>
          <td>{children}</td>
        </tr>
      </tbody>
    </table>
  );
}

function Page({ children }: { children: ReactNode }) {
  useScrollers();
  return children;
}

const table = () => screen.getByRole('table');

it('lets the keyboard reach a table that is wider than its place', () => {
  render(
    <Page>
      <Table wide={500} place={300}>
        words
      </Table>
    </Page>,
  );
  expect(table().getAttribute('tabindex')).toBe('0');
});

it.each([
  ['fits', <Table key="1" wide={300} place={300} />],
  ['does not scroll', <Table key="2" wide={500} place={300} overflow="visible" />],
  [
    'has something to reach in it',
    <Table key="3" wide={500} place={300}>
      <a href="/jobs">Jobs</a>
    </Table>,
  ],
])('passes over one that %s', (_, one) => {
  render(<Page>{one}</Page>);
  expect(table().hasAttribute('tabindex')).toBe(false);
});

it('sees a table that comes later', async () => {
  const { rerender } = render(<Page>nothing yet</Page>);
  rerender(
    <Page>
      <Table wide={500} place={300} />
    </Page>,
  );
  await act(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  expect(table().getAttribute('tabindex')).toBe('0');
});
