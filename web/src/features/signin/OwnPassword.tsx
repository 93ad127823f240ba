import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, data } from '../../api/client';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { Devices } from './Devices';
import { SecondFactor } from './SecondFactor';

/** Everybody changes their own password, and sees where they are signed in. */
export default function OwnPassword() {
  const client = useQueryClient();
  const [current, setCurrent] = useState('');
  const [password, setPassword] = useState('');
  const account = useQuery({
    queryKey: ['account'],
    queryFn: () => data(api.GET('/api/me/account')),
  });
  const change = useMutation({
    mutationFn: () => data(api.PUT('/api/me/password', { body: { current, password } })),
    onSuccess: () => {
      setCurrent('');
      setPassword('');
      return client.invalidateQueries({ queryKey: ['account'] });
    },
  });
  return (
    <div className="page account">
      <h1>Your password and devices</h1>
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
            <label htmlFor="own-new">New password, at least 12 characters</label>
            <Input.Password
              id="own-new"
              autoComplete="new-password"
              value={password}
              onChange={(e) => setPassword(e.target.value)}
            />
            <FieldNote error={change.error} at="/password" />
            <span className="hint">Four words that do not belong together are a good one.</span>
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
          <Link className="action" to="/" data-leave="">
            Leave it
          </Link>
        </div>
      </form>
      <ProblemNote error={account.error} retry={() => account.refetch()} />
      {account.data && (
        <>
          <Devices devices={account.data.devices} />
          <SecondFactor on={account.data.secondFactor} />
        </>
      )}
    </div>
  );
}
