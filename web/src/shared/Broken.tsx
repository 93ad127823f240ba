import { Component, type ReactNode } from 'react';

/** A fault of the interface itself: said in our words, with the ways out that lose nothing on the server. */
export function BrokenPage({ error }: { error: unknown }) {
  const unread = error instanceof Error && /module script|imported module/i.test(error.message);
  return (
    <div className="page" role="alert">
      <h1>{unread ? 'This page cannot be read now' : 'This page has stopped working'}</h1>
      <p>
        {unread
          ? 'The server does not answer. What was entered on a card is kept on this tablet and is sent once it does.'
          : 'What was recorded is safe on the server, and what waits on a card is kept on this tablet. What was typed in a form here is lost.'}{' '}
        {error instanceof Error && <span className="hint">({error.message})</span>}
      </p>
      <div className="actions">
        <button className="action" onClick={() => window.location.reload()}>
          Open it again
        </button>
        <a className="action" href="/">
          To the Desk
        </a>
      </div>
    </div>
  );
}

/** Around what is fetched when it is needed; a page within has a boundary of its own. */
export class Boundary extends Component<{ children: ReactNode }, { error?: unknown }> {
  override state: { error?: unknown } = {};

  static getDerivedStateFromError(error: unknown) {
    return { error };
  }

  override render() {
    return this.state.error === undefined ? (
      this.props.children
    ) : (
      <BrokenPage error={this.state.error} />
    );
  }
}
