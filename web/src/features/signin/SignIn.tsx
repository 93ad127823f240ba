import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Button } from 'antd';
// by themselves: all kinds of fields together would be a tenth of what is fetched before the sign-in
import Input from 'antd/es/input/Input';
import Password from 'antd/es/input/Password';
import { useState, type FormEvent } from 'react';
import { api, data, Problem } from '../../api/client';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { meQuery } from '../../shared/queries';

/** The form alone; also laid over a page whose sign-in has lapsed. */
export function SignInForm({ onDone }: { onDone?: () => void }) {
  const client = useQueryClient();
  const [signIn, setSignIn] = useState('');
  const [password, setPassword] = useState('');
  const [code, setCode] = useState<string>();
  const send = useMutation({
    mutationFn: async () => {
      await data(api.GET('/api/me'));
      return data(api.POST('/api/sign-in', { body: { signIn, password, code } }));
    },
    onSuccess: async () => {
      // until it is read who that is, nobody is: nothing kept goes out in another's name
      client.setQueryData(meQuery.queryKey, (me) => me && { ...me, name: undefined });
      // signing in changes the token that changes need
      await client.refetchQueries({ queryKey: ['me'] });
      onDone?.();
      await client.invalidateQueries();
    },
  });
  const submit = (e: FormEvent) => {
    e.preventDefault();
    send.mutate();
  };
  // asked for once the password was right
  const asksCode =
    code !== undefined || (send.error instanceof Problem && send.error.at('/code') !== undefined);
  const atField = send.error instanceof Problem && send.error.onlyAt('/password', '/code');
  return (
    <form onSubmit={submit} className="form">
      <label htmlFor="sign-in">Sign-in name</label>
      <Input
        id="sign-in"
        autoFocus
        autoComplete="username"
        value={signIn}
        onChange={(e) => setSignIn(e.target.value)}
      />
      <label htmlFor="password">Password</label>
      <Password
        id="password"
        autoComplete="current-password"
        value={password}
        status={atField ? 'error' : ''}
        onChange={(e) => setPassword(e.target.value)}
      />
      <FieldNote error={send.error} at="/password" />
      {asksCode && (
        <>
          <label htmlFor="sign-in-code">Code of your second device</label>
          <Input
            id="sign-in-code"
            autoFocus
            inputMode="numeric"
            autoComplete="one-time-code"
            value={code ?? ''}
            onChange={(e) => setCode(e.target.value)}
          />
          <FieldNote error={send.error} at="/code" />
        </>
      )}
      {!atField && <ProblemNote error={send.error} />}
      <Button
        type="primary"
        htmlType="submit"
        loading={send.isPending}
        disabled={!signIn || !password}
      >
        Sign in
      </Button>
    </form>
  );
}

/** The first page: sign in, or create the manager's account where there is none. */
export function SignIn({ workshop, firstRun }: { workshop: string; firstRun: boolean }) {
  return (
    <main className="sign-in">
      <section>
        <h1>Knollfield</h1>
        <p className="lead">
          Which engine must not wait, what goes in with it, and proof that it was done.
        </p>
        <Emblem />
      </section>
      <section>
        <h2>{firstRun ? 'The manager’s account' : workshop}</h2>
        {firstRun ? <FirstRun /> : <SignInForm />}
      </section>
    </main>
  );
}

function FirstRun() {
  const [form, setForm] = useState({ code: '', name: '', signIn: '', password: '' });
  const send = useMutation({
    mutationFn: async () => {
      await data(api.GET('/api/me'));
      return data(api.POST('/api/first-run', { body: form }));
    },
    // the first page is what a new workshop still lacks
    onSuccess: () => window.location.assign('/setup/ready'),
  });
  const field = (name: keyof typeof form, label: string, hint?: string) => (
    <>
      <label htmlFor={name}>{label}</label>
      {name === 'password' ? (
        <Password
          id={name}
          autoComplete="new-password"
          value={form[name]}
          onChange={(e) => setForm({ ...form, [name]: e.target.value })}
        />
      ) : (
        <Input
          id={name}
          value={form[name]}
          onChange={(e) => setForm({ ...form, [name]: e.target.value })}
        />
      )}
      {hint && <span className="hint">{hint}</span>}
      <FieldNote error={send.error} at={`/${name}`} />
    </>
  );
  const fields = ['/code', '/name', '/signIn', '/password'];
  return (
    <form
      className="form"
      onSubmit={(e) => {
        e.preventDefault();
        send.mutate();
      }}
    >
      {field('code', 'Code', 'Printed in the window where Knollfield was started.')}
      {field('name', 'Your name')}
      {field('signIn', 'Sign-in name')}
      {field(
        'password',
        'Password',
        'At least 12 characters; four words that do not belong together are a good one.',
      )}
      {!(send.error instanceof Problem && send.error.onlyAt(...fields)) && (
        <ProblemNote error={send.error} />
      )}
      <Button type="primary" htmlType="submit" loading={send.isPending}>
        Create the account
      </Button>
    </form>
  );
}

/** A due window without figures: limits, a track, and where it will cross. */
function Emblem() {
  return (
    <svg className="emblem" viewBox="0 0 300 170" aria-hidden="true">
      <path className="axis" d="M10 10V160H290" />
      <path className="limit" d="M10 48H240V160" />
      <path className="fan" d="M150 88L222 24L262 24Z" />
      <path className="track" d="M10 160L40 138L66 128L96 112L124 98L150 88" />
      {[
        [40, 138],
        [66, 128],
        [96, 112],
        [124, 98],
      ].map(([x, y]) => (
        <circle key={x} className="reading" cx={x} cy={y} r="2.6" />
      ))}
      <path className="median" d="M150 88L238 24" />
      <path className="crossing-stroke" d="M196 48H224" />
    </svg>
  );
}
