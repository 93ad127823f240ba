import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Input } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { Field } from '../../shared/forms';
import { formatHours, formatMoney, formatTime, formatWeekday } from '../../shared/format';
import { useMe } from '../../shared/me';
import { DAYS } from '../../shared/days';
import { ProblemNote } from '../../shared/ProblemNote';
import {
  boardJobQuery,
  spanWords,
  useNoShow,
  usePromise,
  useTakeOff,
  useWishes,
  type Board,
  type BoardJob,
} from './boardQueries';
import { PricedNote } from './Changes';
import { Offers } from './Offers';
import { PlaceForm } from './PlaceForm';
import { DateField } from '../../shared/ui/DateField';

type Part = 'place' | 'offers' | 'why' | 'wishes' | 'no-show';

type Weekday = (typeof DAYS)[number]['value'];

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
            : job?.place
              ? `${spanWords(job.place, formatWeekday, formatTime)}. ${job.place.technician}, ${job.place.bay}; not within the days shown.`
              : 'Not within the days shown.'}
        {block && block.helperMinutes > 0 && ` A second pair of hands ${block.helperMinutes} min.`}
        {(waiting?.earliestWhy ?? block?.earliestWhy) &&
          ` Not before ${formatWeekday((waiting?.earliest ?? block?.earliest)!)}, ${formatTime((waiting?.earliest ?? block?.earliest)!)}: ${waiting?.earliestWhy ?? block?.earliestWhy}.`}
        {job?.noShows.map(
          (n) => ` Did not come on ${formatWeekday(n.start)}${n.note && `: ${n.note}`}.`,
        )}
      </p>
      {job && job.whileHere.length > 0 && (
        <p className="hint">
          Not due, but worth doing on the same visit:{' '}
          {job.whileHere.map((w, i) => (
            <span key={w.vehicleId}>
              {i > 0 && ', '}
              <Link to={`/vehicles/${w.vehicleId}`}>{w.registration}</Link> ({w.occasion})
            </span>
          ))}
          .
        </p>
      )}
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
      {part === 'why' && job && job.why.length > 0 && <PricedNote />}
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
          <DateField id="wish-day" value={notBefore} onChange={(d) => setNotBefore(d ?? '')} />
        </Field>
        <div>
          <span className="label" id="wish-days">
            Days the vehicle can be here; none ticked means any
          </span>
          <Checkbox.Group
            aria-labelledby="wish-days"
            value={days}
            onChange={setDays}
            options={DAYS}
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
