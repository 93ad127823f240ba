import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Input, Select } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { Field, faulty } from '../../shared/forms';
import { addDays, formatHours, formatMoney, formatTime, formatWeekday } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import {
  askQuery,
  boardJobQuery,
  offersQuery,
  spanWords,
  useNoShow,
  usePlace,
  usePromise,
  useTakeOff,
  useWishes,
  type Board,
} from './boardQueries';

type Part = 'place' | 'offers' | 'why' | 'wishes' | 'no-show';

const WEEKDAYS = [
  ['MONDAY', 'Mon'],
  ['TUESDAY', 'Tue'],
  ['WEDNESDAY', 'Wed'],
  ['THURSDAY', 'Thu'],
  ['FRIDAY', 'Fri'],
  ['SATURDAY', 'Sat'],
  ['SUNDAY', 'Sun'],
] as const;

const PLACE_FIELDS = ['/technicianId', '/bayId', '/day', '/time'];

type Weekday = (typeof WEEKDAYS)[number][0];

/** The chosen job: where it stands, and what can be done about it. */
export function JobSheet({
  board,
  jobId,
  onClose,
}: {
  board: Board;
  jobId: number;
  onClose: () => void;
}) {
  const me = useMe();
  const block = board.blocks.find((b) => b.jobId === jobId);
  const waiting = board.waiting.find((w) => w.jobId === jobId);
  const { data: job, error } = useQuery(boardJobQuery(jobId));
  const [part, setPart] = useState<Part>();
  const promise = usePromise(jobId);
  const takeOff = useTakeOff(jobId);
  const head = block ?? waiting;
  const movable = me.desk && block?.work !== 'UNDER_WAY' && block?.work !== 'DONE';
  const placed = job?.place != null;
  const technician = board.technicians.find((t) => t.id === block?.technicianId)?.name;
  const bay = board.bays.find((b) => b.id === block?.bayId)?.name;
  const toggle = (p: Part) => setPart(part === p ? undefined : p);
  return (
    <section className="job-sheet" aria-label="The chosen job">
      <div className="job-line">
        <p className="job-name">
          <Link className="registration" to={`/jobs/${jobId}`}>
            {head?.registration ?? job?.registration}
          </Link>{' '}
          {head?.makeModel}
          {head && `, ${head.ownerName}`}
          {head?.fleet && head.fleet !== head.ownerName && `, ${head.fleet}`}
        </p>
        {movable && (
          <>
            <button
              className="action"
              aria-expanded={part === 'place'}
              onClick={() => toggle('place')}
            >
              Place…
            </button>
            <button
              className="action"
              aria-expanded={part === 'offers'}
              onClick={() => toggle('offers')}
            >
              Five best slots
            </button>
            {placed && job && (
              <button
                className="action"
                disabled={promise.isPending}
                onClick={() => promise.mutate({ promised: !job.promised, version: job.version })}
              >
                {job.promised ? 'Take the promise back' : 'Promise'}
              </button>
            )}
            {placed && job && (
              <button
                className="action"
                disabled={takeOff.isPending}
                onClick={() => takeOff.mutate(job.version)}
              >
                Take off the board
              </button>
            )}
            {block?.work === 'LATE' && (
              <button
                className="action"
                aria-expanded={part === 'no-show'}
                onClick={() => toggle('no-show')}
              >
                Did not come
              </button>
            )}
            <button
              className="action"
              aria-expanded={part === 'wishes'}
              onClick={() => toggle('wishes')}
            >
              Possible days
            </button>
          </>
        )}
        <button className="action" aria-expanded={part === 'why'} onClick={() => toggle('why')}>
          {placed ? 'Why here?' : 'Why not planned?'}
        </button>
        <button className="action quiet" onClick={onClose}>
          Close
        </button>
      </div>
      <p className="job-where">
        {block
          ? `${spanWords({ start: block.startsAt, end: block.endsAt }, formatWeekday, formatTime)}${block.startsAt.slice(0, 10) === block.endsAt.slice(0, 10) ? '' : ', over night'}. ${technician}, ${bay}, ${formatHours(block.minutes)} h.`
          : waiting
            ? `Waits for a place: ${formatHours(waiting.minutes)} h, exposure ${formatMoney(waiting.exposurePerWeekMinor, me.currency)} a week.`
            : 'Not within the days shown.'}
        {block && block.helperMinutes > 0 && ` A second pair of hands ${block.helperMinutes} min.`}
        {(waiting?.earliestWhy ?? block?.earliestWhy) &&
          ` Not before ${formatWeekday((waiting?.earliest ?? block?.earliest)!)}, ${formatTime((waiting?.earliest ?? block?.earliest)!)}: ${waiting?.earliestWhy ?? block?.earliestWhy}.`}
        {job?.noShows.map(
          (n) => ` Did not come on ${formatWeekday(n.start)}${n.note && `: ${n.note}`}.`,
        )}
      </p>
      {block?.clash.map((c) => (
        <p key={c} className="clash-note">
          {c}
        </p>
      ))}
      <ProblemNote error={error ?? promise.error ?? takeOff.error} />
      {part === 'place' && job && (
        <PlaceForm board={board} job={job} onDone={() => setPart(undefined)} />
      )}
      {part === 'offers' && job && <Offers job={job} onDone={() => setPart(undefined)} />}
      {part === 'why' && job && (
        <ul className="why-list">
          {job.why.map((w) => (
            <li key={w}>{w}</li>
          ))}
          {job.why.length === 0 && <li>This job is done or not open.</li>}
        </ul>
      )}
      {part === 'wishes' && job && <Wishes job={job} onDone={() => setPart(undefined)} />}
      {part === 'no-show' && job && <NoShow job={job} onDone={() => setPart(undefined)} />}
    </section>
  );
}

type BoardJob = Schemas['BoardJobView'];

/** Everything that dragging does, by typing; the answer stands there before anything is kept. */
export function PlaceForm({
  board,
  job,
  onDone,
}: {
  board: Board;
  job: BoardJob;
  onDone: () => void;
}) {
  const [technicianId, setTechnician] = useState(job.place?.technicianId ?? 0);
  const [bayId, setBay] = useState(job.place?.bayId ?? 0);
  const [day, setDay] = useState(job.place?.start.slice(0, 10) ?? addDays(board.today, 1));
  const [time, setTime] = useState(job.place?.start.slice(11, 16) ?? '08:00');
  const place = usePlace();
  const { data: asked, error } = useQuery(
    askQuery(job.jobId, {
      technicianId: technicianId || undefined,
      bayId: bayId || undefined,
      day,
      time,
    }),
  );
  const send = (promised: boolean) =>
    place.mutate(
      {
        jobId: job.jobId,
        technicianId: technicianId || undefined,
        bayId: bayId || undefined,
        day,
        time,
        promised,
        version: job.version,
      },
      { onSuccess: onDone },
    );
  const free = asked !== undefined && asked.broken.length === 0;
  const problem = place.error ?? error;
  return (
    <form
      className="sheet-form"
      onSubmit={(e) => {
        e.preventDefault();
        send(job.promised);
      }}
    >
      <div className="fields">
        <Field id="place-technician" label="Technician" error={problem} at="/technicianId">
          <Select
            id="place-technician"
            value={technicianId}
            popupMatchSelectWidth={false}
            onChange={setTechnician}
            options={[
              { value: 0, label: 'whoever can' },
              ...board.technicians.map((t) => ({ value: t.id, label: `${t.name}, ${t.skills}` })),
            ]}
          />
        </Field>
        <Field id="place-bay" label="Bay" error={problem} at="/bayId">
          <Select
            id="place-bay"
            value={bayId}
            popupMatchSelectWidth={false}
            onChange={setBay}
            options={[
              { value: 0, label: 'whichever is free' },
              ...board.bays.map((b) => ({ value: b.id, label: `${b.name}, ${b.note}` })),
            ]}
          />
        </Field>
        <Field id="place-day" label="Day" error={problem} at="/day">
          <Input
            id="place-day"
            type="date"
            min={board.today}
            max={board.last}
            value={day}
            status={faulty(problem, '/day')}
            onChange={(e) => setDay(e.target.value)}
          />
        </Field>
        <Field id="place-time" label="Start" error={problem} at="/time">
          <Select
            id="place-time"
            value={time}
            onChange={setTime}
            options={board.times.map((t) => ({ value: t.slice(0, 5), label: t.slice(0, 5) }))}
          />
        </Field>
        <div className="place-answer" role="status">
          {asked?.broken.map((b) => (
            <p key={b.words} className="broken-rule">
              {b.words}
            </p>
          ))}
          {free && asked.place && (
            <p>
              Free: {spanWords(asked.place, formatWeekday, formatTime)}, {asked.place.technician},{' '}
              {asked.place.bay}.
            </p>
          )}
        </div>
      </div>
      <ProblemNote error={problem} beside={PLACE_FIELDS} />
      <div className="actions">
        <Button htmlType="submit" disabled={!free} loading={place.isPending}>
          {job.promised ? 'Move it, still promised' : 'Place it'}
        </Button>
        {!job.promised && (
          <Button
            type="primary"
            disabled={!free}
            loading={place.isPending}
            onClick={() => send(true)}
          >
            Promise it
          </Button>
        )}
      </div>
    </form>
  );
}

/** The five best slots, each with what it costs the rest; one click promises it. */
export function Offers({ job, onDone }: { job: BoardJob; onDone: () => void }) {
  const { currency } = useMe();
  const { data: offers, error, isFetching } = useQuery(offersQuery(job.jobId));
  const place = usePlace();
  return (
    <div className="offers">
      <ProblemNote error={error ?? place.error} />
      {!offers && isFetching && <p className="hint">Looking through the board…</p>}
      {offers?.length === 0 && (
        <p>No slot is free within twelve weeks. “Why not planned?” says what is in the way.</p>
      )}
      {offers && offers.length > 0 && (
        <table className="plain">
          <thead>
            <tr>
              <th>Slot</th>
              <th>Who, where</th>
              <th className="num">Waiting until then</th>
              <th className="num">Off the road</th>
              <th className="num">Costs the rest</th>
              <th>Who waits longer</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {offers.map((o) => (
              <tr key={o.place.start + o.place.technicianId}>
                <td>{spanWords(o.place, formatWeekday, formatTime)}</td>
                <td>
                  {o.place.technician}, {o.place.bay}
                </td>
                <td className="num">{formatMoney(o.waitingMinor, currency)}</td>
                <td className="num">{formatMoney(o.offRoadMinor, currency)}</td>
                <td className="num">{formatMoney(o.restMinor, currency)}</td>
                <td>
                  {o.later.length === 0
                    ? 'nobody'
                    : o.later
                        .slice(0, 2)
                        .map(
                          (l) =>
                            `${l.registration} ${l.days == null ? 'finds no place' : `${l.days} ${l.days === 1 ? 'day' : 'days'}`}`,
                        )
                        .join(', ')}
                  {o.later.length > 2 && ` and ${o.later.length - 2} more`}
                </td>
                <td>
                  <Button
                    size="small"
                    disabled={place.isPending}
                    onClick={() =>
                      place.mutate(
                        {
                          jobId: job.jobId,
                          technicianId: o.place.technicianId,
                          bayId: o.place.bayId,
                          day: o.place.start.slice(0, 10),
                          time: o.place.start.slice(11, 16),
                          promised: true,
                          version: job.version,
                        },
                        { onSuccess: onDone },
                      )
                    }
                  >
                    Promise {formatWeekday(o.place.start)}
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

function Wishes({ job, onDone }: { job: BoardJob; onDone: () => void }) {
  const [notBefore, setNotBefore] = useState(job.notBefore ?? '');
  const [days, setDays] = useState<Weekday[]>(job.days as Weekday[]);
  const wishes = useWishes(job.jobId);
  return (
    <form
      className="sheet-form"
      onSubmit={(e) => {
        e.preventDefault();
        wishes.mutate(
          { notBefore: notBefore || undefined, days, version: job.version },
          { onSuccess: onDone },
        );
      }}
    >
      <div className="fields">
        <Field id="wish-day" label="Not before" error={wishes.error} at="/notBefore">
          <Input
            id="wish-day"
            type="date"
            value={notBefore}
            onChange={(e) => setNotBefore(e.target.value)}
          />
        </Field>
        <div>
          <span className="label" id="wish-days">
            Days the vehicle can be here; none ticked means any
          </span>
          <Checkbox.Group
            aria-labelledby="wish-days"
            value={days}
            onChange={setDays}
            options={WEEKDAYS.map(([value, label]) => ({ value, label }))}
          />
        </div>
        <Button htmlType="submit" loading={wishes.isPending}>
          Keep
        </Button>
      </div>
      <ProblemNote error={wishes.error} beside={['/notBefore']} />
    </form>
  );
}

function NoShow({ job, onDone }: { job: BoardJob; onDone: () => void }) {
  const [note, setNote] = useState('');
  const noShow = useNoShow(job.jobId);
  return (
    <form
      className="sheet-form"
      onSubmit={(e) => {
        e.preventDefault();
        noShow.mutate({ note, version: job.version }, { onSuccess: onDone });
      }}
    >
      <div className="fields">
        <Field
          id="no-show-note"
          label="What is known"
          error={noShow.error}
          at="/note"
          hint="Its slot becomes free; the job waits again, and the vehicle's history keeps it."
          grow
        >
          <Input id="no-show-note" value={note} onChange={(e) => setNote(e.target.value)} />
        </Field>
        <Button htmlType="submit" loading={noShow.isPending}>
          It did not come
        </Button>
      </div>
      <ProblemNote error={noShow.error} beside={['/note']} />
    </form>
  );
}
