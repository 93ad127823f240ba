import { useMutation } from '@tanstack/react-query';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, data } from '../../api/client';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';

/** Everybody changes their own password. */
export default function OwnPassword() {
  const [current, setCurrent] = useState('');
  const [password, setPassword] = useState('');
  const change = useMutation({
    mutationFn: () => data(api.PUT('/api/me/password', { body: { current, password } })),
    onSuccess: () => {
      setCurrent('');
      setPassword('');
    },
  });
  const everywhere = useMutation({
    mutationFn: () => data(api.POST('/api/me/sign-out-everywhere', {})),
    onSuccess: () => window.location.assign('/'),
  });
  return (
    <div className="page">
      <h1>Your password</h1>
      <form
        className="form card-form"
        onSubmit={(e) => {
          e.preventDefault();
          change.mutate();
        }}
      >
        <div className="fields">
          <div>
            <label htmlFor="own-current">Password so far</label>
            <Input.Password
              id="own-current"
              autoFocus
              autoComplete="current-password"
              value={current}
              onChange={(e) => setCurrent(e.target.value)}
            />
            <FieldNote error={change.error} at="/current" />
          </div>
          <div>
            <label htmlFor="own-new">New password, at least 8 characters</label>
            <Input.Password
              id="own-new"
              autoComplete="new-password"
              value={password}
              onChange={(e) => setPassword(e.target.value)}
            />
            <FieldNote error={change.error} at="/password" />
          </div>
        </div>
        <ProblemNote error={change.error} beside={['/current', '/password']} />
        {change.isSuccess && (
          <p role="status">Your password is changed; every other device is signed out.</p>
        )}
        <div className="actions">
          <Button
            type="primary"
            htmlType="submit"
            loading={change.isPending}
            disabled={!current || !password}
          >
            Change it
          </Button>
          <Link className="action" to="/">
            Leave it
          </Link>
        </div>
      </form>
      <h2>Your devices</h2>
      <p className="hint">
        Ends your session here and on every other device, such as a tablet that was lost.
      </p>
      <ProblemNote error={everywhere.error} />
      <Button loading={everywhere.isPending} onClick={() => everywhere.mutate()}>
        Sign out everywhere
      </Button>
    </div>
  );
}
