import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { AutoComplete, Dropdown, Input, type InputRef } from 'antd';
import { useRef, useState, type ReactNode } from 'react';
import { NavLink, Outlet, useNavigate } from 'react-router';
import { api, data, type Schemas } from '../api/client';
import { chooseLook, lookChosen, useDark, type Look } from '../theme/look';
import { leaveNothingAtHand } from './atHand';
import { formatWeekday, vehicleCount } from './format';
import { Help } from './Help';
import { useKeys } from './keyboard';
import { useMe } from './me';
import { useNewVersion } from './newVersion';
import { findQuery } from './queries';

/**
 * The places at the top, the find box, the date and the person.
 *
 * @param note stands below them on every page
 */
export function Shell({ note }: { note?: ReactNode }) {
  const me = useMe();
  const navigate = useNavigate();
  const [help, setHelp] = useState(false);
  const find = useRef<InputRef>(null);
  const version = useNewVersion();
  const places = [
    { to: '/', words: 'Desk' },
    { to: '/ahead', words: 'Ahead' },
    ...(me.readsOnly
      ? [{ to: '/fleets', words: 'Fleets' }]
      : [
          { to: '/board', words: 'Board' },
          { to: '/jobs', words: 'Jobs' },
          { to: '/fleets', words: 'Fleets' },
          { to: '/engines', words: 'Engines' },
          { to: '/stores', words: 'Stores' },
        ]),
    ...(me.desk
      ? [
          { to: '/month', words: 'Month' },
          { to: '/letters', words: 'Letters' },
          { to: '/setup', words: 'Setup' },
        ]
      : []),
  ];
  useKeys({
    '/': () => find.current?.focus(),
    '?': () => setHelp(true),
    ...Object.fromEntries(places.map((p, i) => [String((i + 1) % 10), () => navigate(p.to)])),
  });
  return (
    <>
      <header className="shell">
        <NavLink className="brand" to="/">
          Knollfield
        </NavLink>
        <nav aria-label="Places">
          {places.map((p) => (
            <NavLink key={p.to} to={p.to} end={p.to === '/'}>
              {p.words}
            </NavLink>
          ))}
        </nav>
        <FindBox inputRef={find} />
        <span className="date">{formatWeekday(me.today)}</span>
        <PersonMenu name={me.name ?? ''} onHelp={() => setHelp(true)} />
      </header>
      {version.waits && (
        <div className="new-version" role="status">
          A newer version of these pages is here. What waits on a card is kept; what is typed in a
          form on this page is not.{' '}
          <button className="action" onClick={version.take}>
            Open it now
          </button>
        </div>
      )}
      {note}
      <main>
        <Outlet />
      </main>
      <Help open={help} onClose={() => setHelp(false)} />
    </>
  );
}

const LOOKS: [Look, string][] = [
  ['bright', 'Bright'],
  ['dark', 'Dark'],
  ['system', 'As the machine is set'],
];

function PersonMenu({ name, onHelp }: { name: string; onHelp: () => void }) {
  useDark();
  const navigate = useNavigate();
  const client = useQueryClient();
  const out = useMutation({
    mutationFn: () => data(api.POST('/api/sign-out')),
    onSuccess: async () => {
      client.clear();
      await leaveNothingAtHand();
      await client.invalidateQueries();
      window.location.assign('/');
    },
  });
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        selectedKeys: [lookChosen()],
        items: [
          { key: 'help', label: 'What this place is for, and keys', onClick: onHelp },
          {
            key: 'look',
            type: 'group',
            label: 'Pages on this machine',
            children: LOOKS.map(([look, words]) => ({
              key: look,
              label: words,
              onClick: () => chooseLook(look),
            })),
          },
          {
            key: 'password',
            label: 'Password and devices',
            onClick: () => void navigate('/password'),
          },
          { key: 'out', label: 'Sign out', onClick: () => out.mutate() },
        ],
      }}
    >
      <button className="person">{name}</button>
    </Dropdown>
  );
}

/** Owners, families and jobs that stand below the vehicles. */
const BESIDE = 3;

/** What was found, each with the page it opens; the vehicles first, the worst before the others. */
function places(q: string, found: Schemas['Found']) {
  const line = (value: string, head: React.ReactNode, rest: string, hint: string) => ({
    value,
    disabled: false,
    label: (
      <span className="found">
        {head} {rest} <span className="hint">{hint}</span>
      </span>
    ),
  });
  const all = found.vehicles.map((f) =>
    line(
      `/vehicles/${f.vehicleId}`,
      <b className="registration">{f.registration}</b>,
      `${f.makeModel}, ${f.ownerName}`,
      f.status,
    ),
  );
  if (found.total > found.vehicles.length)
    all.push(
      line(
        `/find?q=${encodeURIComponent(q)}`,
        <b>{`${found.vehicles.length} of ${found.total} vehicles`}</b>,
        '',
        'all of them',
      ),
    );
  found.owners
    .slice(0, BESIDE)
    .forEach((o) =>
      all.push(
        line(
          `/owners/${o.id}`,
          <b>{o.name}</b>,
          o.phone ?? '',
          `owner, ${vehicleCount(o.vehicles)}`,
        ),
      ),
    );
  found.families
    .slice(0, BESIDE)
    .forEach((f) =>
      all.push(
        line(
          `/engines/${encodeURIComponent(f.code)}`,
          <b>{f.code}</b>,
          f.name,
          `engine family, ${vehicleCount(f.vehicles)}`,
        ),
      ),
    );
  found.jobs
    .slice(0, BESIDE)
    .forEach((j) =>
      all.push(
        line(`/jobs/${j.id}`, <b>{`Job ${j.id}`}</b>, `${j.registration}, ${j.makeModel}`, ''),
      ),
    );
  return all;
}

function FindBox({ inputRef }: { inputRef: React.RefObject<InputRef | null> }) {
  const [q, setQ] = useState('');
  const navigate = useNavigate();
  const client = useQueryClient();
  const { data: found, isFetched } = useQuery(findQuery(q));
  const open = (place: string) => {
    setQ('');
    inputRef.current?.blur();
    navigate(place);
  };
  const options = q.trim() === '' ? [] : found ? places(q, found) : [];
  if (found && isFetched && q.trim() !== '' && options.length === 0)
    options.push({ value: '', disabled: true, label: <span>Nothing found for “{q}”</span> });
  return (
    <AutoComplete
      className="find"
      value={q}
      options={options}
      onSearch={setQ}
      onSelect={open}
      popupMatchSelectWidth={420}
      listHeight={520}
      defaultActiveFirstOption
    >
      <Input
        ref={inputRef}
        placeholder="Registration, owner, phone, job"
        aria-label="Find by registration, owner, phone, part of a VIN, engine or job"
        onPressEnter={(e) => {
          // whoever types fast presses Enter before the list is there: the best match opens all the same
          e.stopPropagation();
          if (q.trim())
            void client.fetchQuery(findQuery(q)).then((f) => {
              const first = places(q, f)[0];
              if (first) open(first.value);
            });
        }}
      />
    </AutoComplete>
  );
}
