import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { api, data } from '../../api/client';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { Leave } from '../../shared/ui/Leave';

/** Signing in with the password and a code of a second device; switched on only once the device has shown one. */
export function SecondFactor({ on }: { on: boolean }) {
  const client = useQueryClient();
  const [code, setCode] = useState('');
  const [current, setCurrent] = useState('');
  const keep = (account: unknown) => {
    offer.reset();
    setCode('');
    setCurrent('');
    client.setQueryData(['account'], account);
  };
  const offer = useMutation({ mutationFn: () => data(api.POST('/api/me/second-factor')) });
  const confirm = useMutation({
    mutationFn: () => data(api.POST('/api/me/second-factor/confirmation', { body: { code } })),
    onSuccess: keep,
  });
  const off = useMutation({
    mutationFn: () => data(api.POST('/api/me/second-factor/off', { body: { current } })),
    onSuccess: keep,
  });
  return (
    <section>
      <h2>Second device</h2>
      {on && (
        <form
          className="form card-form"
          onSubmit={(e) => {
            e.preventDefault();
            off.mutate();
          }}
        >
          <p>Signing in asks for a code of your second device too.</p>
          <label htmlFor="factor-current">Your password, to go without it again</label>
          <Input.Password
            id="factor-current"
            autoComplete="current-password"
            value={current}
            onChange={(e) => setCurrent(e.target.value)}
          />
          <FieldNote error={off.error} at="/current" />
          <ProblemNote error={off.error} beside={['/current']} />
          <div className="actions">
            <Button htmlType="submit" loading={off.isPending} disabled={!current}>
              Go without it
            </Button>
          </div>
        </form>
      )}
      {!on && !offer.data && (
        <>
          <p className="hint">
            Who learns your password still does not get in: an app on your phone shows six digits
            that change every half minute. Any app for one-time codes will do.
          </p>
          <ProblemNote error={offer.error} />
          <div className="actions">
            <Button loading={offer.isPending} onClick={() => offer.mutate()}>
              Use a second device
            </Button>
          </div>
        </>
      )}
      {!on && offer.data && (
        <form
          className="form card-form second-device"
          onSubmit={(e) => {
            e.preventDefault();
            confirm.mutate();
          }}
        >
          <Picture rows={offer.data.picture} />
          <div>
            <p>Take this picture with the app, or type this into it:</p>
            <p className="secret">{offer.data.secret.match(/.{1,4}/g)?.join(' ')}</p>
            <label htmlFor="factor-code">The six digits it shows now</label>
            <Input
              id="factor-code"
              inputMode="numeric"
              autoComplete="one-time-code"
              value={code}
              onChange={(e) => setCode(e.target.value)}
            />
            <FieldNote error={confirm.error} at="/code" />
            <ProblemNote error={confirm.error} beside={['/code']} />
            <div className="actions">
              <Button
                type="primary"
                htmlType="submit"
                loading={confirm.isPending}
                disabled={code.trim().length < 6}
              >
                Ask for it from now on
              </Button>
              <Leave onClick={() => offer.reset()} />
            </div>
          </div>
        </form>
      )}
    </section>
  );
}

const QUIET = 4;

function Picture({ rows }: { rows: string[] }) {
  const size = rows.length + 2 * QUIET;
  const dark = rows.flatMap((row, y) =>
    [...row].map((c, x) => (c === '#' ? `M${x + QUIET},${y + QUIET}h1v1h-1z` : '')),
  );
  return (
    <svg
      className="square-code"
      viewBox={`0 0 ${size} ${size}`}
      role="img"
      aria-label="The secret as a picture"
    >
      <rect width={size} height={size} />
      <path d={dark.join('')} />
    </svg>
  );
}
