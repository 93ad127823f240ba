import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Select } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { capital, formatMoment, formatWhole } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import {
  outboxQuery,
  previewQuery,
  remindersQuery,
  useOutboxDeed,
  usePrintLetters,
  useSendReminders,
  type Batch,
  type Channel,
  type Deed,
  type Letter,
  type Message,
} from './letterQueries';

/** Whom the workshop writes to today, and what is on its way. */
export default function Letters() {
  const { data: batch, error, refetch } = useQuery(remindersQuery);
  return (
    <div className="page letters-page">
      <div className="page-head">
        <h1>Letters</h1>
      </div>
      <ProblemNote error={error} retry={() => refetch()} />
      {!batch && !error && <p className="hint loading">Looking who is to be written to…</p>}
      {batch && <Reminders batch={batch} />}
      <Outbox />
    </div>
  );
}

function Reminders({ batch }: { batch: Batch }) {
  const me = useMe();
  const [out, setOut] = useState<Record<number, boolean>>({});
  const [ways, setWays] = useState<Record<number, Channel>>({});
  const [shown, setShown] = useState<number>();
  const send = useSendReminders();
  // whoever would rather be rung is written to only where somebody ticks it
  const isOut = (l: Letter) => out[l.ownerId] ?? l.suggested !== undefined;
  const wayOf = (l: Letter) => ways[l.ownerId] ?? l.suggested ?? l.ways[0]?.channel;
  const chosen = batch.letters.filter((l) => isOut(l) && wayOf(l));
  const rule =
    `${batch.weeksBefore} weeks before the act-by day, again after ${batch.weeksBetween}, ` +
    `at most ${batch.most} times`;
  return (
    <section aria-label="Reminders">
      <h2>
        Reminders for today{' '}
        <span className="count">
          {batch.letters.length === 0 ? 'none' : formatWhole(batch.letters.length)}
        </span>
      </h2>
      <p className="hint">
        {capital(rule)}. {me.manages && <Link to="/setup/letters">Rule and words</Link>} Nothing
        goes before you send it.
      </p>
      {send.data && (
        <p role="status">
          {send.data.sent === 1 ? '1 is' : `${send.data.sent} are`} on the way, below.
        </p>
      )}
      <ProblemNote error={send.error} />
      {batch.letters.length > 0 && (
        <table className="plain reminders">
          <thead>
            <tr>
              <th className="tick">
                <Checkbox
                  aria-label="Send all"
                  checked={chosen.length === batch.letters.filter((l) => wayOf(l)).length}
                  indeterminate={chosen.length > 0 && chosen.length < batch.letters.length}
                  onChange={(e) =>
                    setOut(
                      Object.fromEntries(batch.letters.map((l) => [l.ownerId, e.target.checked])),
                    )
                  }
                />
              </th>
              <th>Owner</th>
              <th>About, and why</th>
              <th>How</th>
              <th>
                <span className="unseen">Words</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {batch.letters.map((l) => (
              <tr key={l.ownerId}>
                <td className="tick">
                  <Checkbox
                    aria-label={`Send to ${l.ownerName}`}
                    disabled={l.ways.length === 0}
                    checked={isOut(l) && wayOf(l) !== undefined}
                    onChange={(e) => setOut({ ...out, [l.ownerId]: e.target.checked })}
                  />
                </td>
                <td>
                  <Link to={`/owners/${l.ownerId}`}>{l.ownerName}</Link>
                  <span className="second">
                    likes to hear {l.prefersWords}
                    {l.phone && (
                      <>
                        {', '}
                        <a href={`tel:${l.phone.replaceAll(' ', '')}`}>{l.phone}</a>
                      </>
                    )}
                  </span>
                </td>
                <td>
                  {l.lines.map((v) => (
                    <div key={v.vehicleId}>
                      <Link to={`/vehicles/${v.vehicleId}`} className="registration">
                        {v.registration}
                      </Link>{' '}
                      {v.makeModel}
                      <span className="second">{v.why}</span>
                    </div>
                  ))}
                </td>
                <td>
                  {l.ways.length === 0 ? (
                    <span className="muted">ring: no address on file</span>
                  ) : (
                    <Select
                      aria-label={`How ${l.ownerName} is written to`}
                      value={wayOf(l)}
                      popupMatchSelectWidth={false}
                      onChange={(way) => {
                        setWays({ ...ways, [l.ownerId]: way });
                        setOut({ ...out, [l.ownerId]: true });
                      }}
                      options={l.ways.map((w) => ({ value: w.channel, label: w.words }))}
                    />
                  )}
                </td>
                <td>
                  <button
                    type="button"
                    className="action"
                    aria-expanded={shown === l.ownerId}
                    onClick={() => setShown(shown === l.ownerId ? undefined : l.ownerId)}
                  >
                    {shown === l.ownerId ? 'Hide' : 'Read it'}
                  </button>
                  {shown === l.ownerId && <Preview ownerId={l.ownerId} />}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {batch.letters.length > 0 && (
        <div className="actions">
          <Button
            type="primary"
            disabled={chosen.length === 0}
            loading={send.isPending}
            onClick={() =>
              send.mutate(
                chosen.map((l) => ({
                  ownerId: l.ownerId,
                  channel: wayOf(l),
                  vehicles: l.lines.map((v) => v.vehicleId),
                })),
                { onSuccess: () => (setOut({}), setWays({}), setShown(undefined)) },
              )
            }
          >
            {chosen.length === 0
              ? 'Send reminders'
              : `Send ${chosen.length === 1 ? '1 reminder' : `${chosen.length} reminders`}`}
          </Button>
          <span className="hint">{sumOf(chosen.map(wayOf))}</span>
        </div>
      )}
      {batch.kept.length > 0 && (
        <details>
          <summary>
            {formatWhole(batch.kept.length)} more are within that time and not written to
          </summary>
          <table className="plain">
            <tbody>
              {batch.kept.map((k) => (
                <tr key={k.vehicleId}>
                  <td>
                    <Link to={`/vehicles/${k.vehicleId}`} className="registration">
                      {k.registration}
                    </Link>
                  </td>
                  <td>{k.ownerName}</td>
                  <td>{k.whyWords}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      )}
      {batch.letters.length === 0 && batch.kept.length === 0 && (
        <p className="muted">
          Nobody’s vehicle is within that time.{' '}
          {batch.later > 0 && `${formatWhole(batch.later)} come later.`}
        </p>
      )}
    </section>
  );
}

const NAMES: Record<Channel, [string, string]> = {
  EMAIL: ['e-mail', 'e-mails'],
  TEXT: ['text message', 'text messages'],
  LETTER: ['letter', 'letters'],
};

function sumOf(ways: (Channel | undefined)[]): string {
  return (Object.keys(NAMES) as Channel[])
    .map((c) => [c, ways.filter((w) => w === c).length] as const)
    .filter(([, n]) => n > 0)
    .map(([c, n]) => `${n} ${NAMES[c][n === 1 ? 0 : 1]}`)
    .join(', ');
}

function Preview({ ownerId }: { ownerId: number }) {
  const { data: letter, error } = useQuery(previewQuery(ownerId));
  if (error) return <ProblemNote error={error} />;
  if (!letter) return <p className="hint loading">Writing it…</p>;
  return (
    <div className="letter-words">
      <b>{letter.subject}</b>
      <p>{letter.body}</p>
    </div>
  );
}

function Outbox() {
  const { data: box, error, refetch } = useQuery(outboxQuery);
  const print = usePrintLetters();
  if (error && !box) return <ProblemNote error={error} retry={() => refetch()} />;
  if (!box) return null;
  const toPrint = box.open.filter((m) => m.channel === 'LETTER' && m.state === 'WAITING');
  return (
    <section aria-label="Outbox">
      <h2>
        On the way{' '}
        <span className="count">{box.open.length === 0 ? 'nothing' : box.open.length}</span>
      </h2>
      <p className="hint">
        {box.mailServer
          ? 'Mail goes to the server that Setup names.'
          : `No mail server is named in Setup: mail is written as files that a mail program opens, into ${box.folder}.`}{' '}
        Text messages are written there as files.
      </p>
      <ProblemNote error={print.error} />
      {toPrint.length > 0 && (
        <div className="actions">
          <Button
            type="primary"
            loading={print.isPending}
            onClick={() => print.mutate(toPrint.map((m) => m.id))}
          >
            {`Print ${toPrint.length === 1 ? '1 letter' : `${toPrint.length} letters`} in one file`}
          </Button>
        </div>
      )}
      <Messages of={box.open} />
      {box.ended.length > 0 && (
        <>
          <h3>Gone lately</h3>
          <Messages of={box.ended} onPrint={(id) => print.mutate([id])} />
        </>
      )}
    </section>
  );
}

/** What can be done with a message, by how far it is. */
const DEEDS: Partial<Record<Message['state'], [Deed, string][]>> = {
  WAITING: [['take-back', 'Take it back']],
  FAILED: [
    ['again', 'Try again'],
    ['take-back', 'Take it back'],
  ],
  UNSURE: [
    ['gone', 'It has gone'],
    ['again', 'Send it again'],
  ],
};

function Messages({ of, onPrint }: { of: Message[]; onPrint?: (id: number) => void }) {
  const deed = useOutboxDeed();
  const [shown, setShown] = useState<number>();
  if (of.length === 0) return null;
  return (
    <>
      <ProblemNote error={deed.error} />
      <table className="plain outbox">
        <tbody>
          {of.map((m) => (
            <tr key={m.id}>
              <td>
                <b>{m.toName}</b>
                <span className="second">
                  {m.channelWords}, {m.toPlace.replaceAll('\n', ', ')}
                </span>
              </td>
              <td>
                {capital(m.kindWords)}: {m.subject}
                <span className="second">
                  by {m.madeBy}, {formatMoment(m.madeAt)}
                </span>
                {shown === m.id && (
                  <div className="letter-words">
                    <p>{m.body}</p>
                  </div>
                )}
              </td>
              <td>
                <span className={m.state === 'FAILED' || m.state === 'UNSURE' ? 'late' : ''}>
                  {m.stateWords}
                </span>
                {m.failure && <span className="second">{m.failure}</span>}
              </td>
              <td className="deeds">
                {(DEEDS[m.state] ?? []).map(([what, words]) => (
                  <button
                    key={what}
                    type="button"
                    className="action"
                    aria-label={`${m.toName}: ${words}`}
                    disabled={deed.isPending}
                    onClick={() => deed.mutate({ id: m.id, deed: what })}
                  >
                    {words}
                  </button>
                ))}
                {onPrint && m.channel === 'LETTER' && m.state === 'SENT' && (
                  <button
                    type="button"
                    className="action"
                    aria-label={`${m.toName}: print again`}
                    onClick={() => onPrint(m.id)}
                  >
                    Print again
                  </button>
                )}
                <button
                  type="button"
                  className="action"
                  aria-label={`${m.toName}: read it`}
                  aria-expanded={shown === m.id}
                  onClick={() => setShown(shown === m.id ? undefined : m.id)}
                >
                  {shown === m.id ? 'Hide' : 'Read it'}
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
