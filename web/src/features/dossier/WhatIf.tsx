import { useQuery } from '@tanstack/react-query';
import { Input } from 'antd';
import { useEffect, useState } from 'react';
import type { Schemas } from '../../api/client';
import { DueWindowPicture } from '../../drawing/DueWindowPicture';
import { addDays, addMonths, distanceUnit, formatWhole, inUnit, kmOf } from '../../shared/format';
import { FieldNote } from '../../shared/ProblemNote';
import { whatIfQuery } from './dossierQueries';
import { DateField } from '../../shared/ui/DateField';
import { numberOf } from '../../shared/ui/spelling';

/** The value once it has stood still for a moment, so that dragging does not ask for every day it passes. */
function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return settled;
}

/**
 * The due window with its handle: what happens if she waits? A day is dragged or typed, a yearly distance typed;
 * nothing of it is saved.
 */
export function WhatIf({
  vehicleId,
  window: w,
  today,
  usage,
}: {
  vehicleId: number;
  window: Schemas['WindowView'];
  today: string;
  usage: Schemas['UsageView'];
}) {
  const [date, setDate] = useState(today);
  const [yearly, setYearly] = useState('');
  const typed = yearly.trim() === '' ? undefined : numberOf(yearly);
  const kmPerYear = typed !== undefined && Number.isFinite(typed) ? kmOf(typed) : undefined;
  const asking = date !== today || kmPerYear !== undefined;
  const settled = useSettled(`${date} ${kmPerYear ?? ''}`, 90);
  const [askedDate = today, askedKm] = settled.split(' ');
  const { data: answer, error } = useQuery({
    ...whatIfQuery(vehicleId, askedDate, askedKm ? Number(askedKm) : undefined),
    enabled: asking,
  });
  const move = (to: string) => setDate(to < today ? today : to);
  const putBack = () => {
    setDate(today);
    setYearly('');
  };
  return (
    <div className="what-if">
      <DueWindowPicture
        window={w}
        whatIf={{
          date,
          asking,
          other: kmPerYear === undefined ? undefined : answer?.window,
          words: asking ? answer?.sentence : undefined,
          onMove: move,
          onWeeks: (n) => move(addDays(date, 7 * n)),
          onMonths: (n) => move(addMonths(date, n)),
          onPutBack: putBack,
        }}
      />
      <div className="what-if-line">
        <label htmlFor={`wait-${vehicleId}`}>Wait until</label>
        <DateField
          id={`wait-${vehicleId}`}
          min={today}
          value={date}
          onChange={(d) => d && move(d)}
        />
        <label htmlFor={`yearly-${vehicleId}`}>at</label>
        <Input
          id={`yearly-${vehicleId}`}
          size="small"
          inputMode="numeric"
          aria-label={`Yearly distance, ${distanceUnit()}`}
          placeholder={formatWhole(Math.round(inUnit(usage.kmPerYear) / 100) * 100)}
          value={yearly}
          status={typed !== undefined && kmPerYear === undefined ? 'error' : ''}
          onChange={(e) => setYearly(e.target.value)}
        />
        <span className="hint">{distanceUnit()} a year</span>
        {asking && (
          <button className="link put-back" onClick={putBack}>
            Put back
          </button>
        )}
      </div>
      <p className="what-if-answer" role="status" aria-live="polite">
        {asking && !error && answer?.sentence}
        {asking && error && (
          <>
            <FieldNote error={error} at="/date" />
            <FieldNote error={error} at="/kmPerYear" />
          </>
        )}
        {!asking && (
          <span className="hint">
            Drag the ring, or type a day or another yearly distance. Nothing is saved.
          </span>
        )}
      </p>
    </div>
  );
}
