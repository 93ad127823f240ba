import { useQuery } from '@tanstack/react-query';
import { Button, Select } from 'antd';
import { useState } from 'react';
import { Field, faulty } from '../../shared/forms';
import { addDays, formatTime, formatWeekday } from '../../shared/format';
import { ProblemNote } from '../../shared/ProblemNote';
import { askQuery, spanWords, usePlace, type Board, type BoardJob } from './boardQueries';
import { DateField } from '../../shared/ui/DateField';

const PLACE_FIELDS = ['/technicianId', '/bayId', '/day', '/time'];

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
          <DateField
            id="place-day"
            min={board.today}
            max={board.last}
            status={faulty(problem, '/day')}
            value={day}
            onChange={(d) => setDay(d ?? '')}
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
