import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Checkbox, Input, Select } from 'antd';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, data } from '../../api/client';
import { Field } from '../../shared/forms';
import { ProblemNote } from '../../shared/ProblemNote';
import { cardQuery, type Card, type Entry, type Step } from './cardQueries';
import { newKey } from './outbox';
import { entriesOf, type Written } from './paperEntries';

/** What was written on a printed card, typed in at once in its order. */
export default function FromPaper() {
  const id = Number(useParams().id);
  const { data: card, error, refetch } = useQuery(cardQuery(id));
  if (!card)
    return <div className="page">{<ProblemNote error={error} retry={() => refetch()} />}</div>;
  return <PaperForm card={card} />;
}

function PaperForm({ card }: { card: Card }) {
  const [written, setWritten] = useState<Record<string, Written>>({});
  const [workedBy, setWorkedBy] = useState('');
  const client = useQueryClient();
  const navigate = useNavigate();
  const put = (step: string, part: Written) =>
    setWritten((w) => ({ ...w, [step]: { ...w[step], ...part } }));
  const left = card.phases
    .map((p) => ({ ...p, steps: p.steps.filter((s) => !s.settled) }))
    .filter((p) => p.steps.length > 0);
  const steps = left.flatMap((p) => p.steps);
  const read = steps.map((s) => entriesOf(s, written[s.code]));
  const unread = steps.filter((_, i) => read[i] === undefined);
  const entries = read.flatMap((e) => e ?? []);
  const send = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/jobs/{id}/card/paper', {
          params: { path: { id: card.jobId } },
          body: {
            workedBy,
            entries: entries.map((e: Entry) => ({
              ...e,
              clientKey: newKey(),
              basedOn: card.seq,
            })),
          },
        }),
      ),
    onSuccess: async (after) => {
      client.setQueryData(cardQuery(card.jobId).queryKey, after);
      await client.invalidateQueries({ queryKey: ['job'] });
      await navigate(`/jobs/${card.jobId}/card`);
    },
  });
  return (
    <div className="page from-paper">
      <div className="page-head">
        <h1>From paper: {card.registration}</h1>
        <span className="head-links">
          <a href={`/api/jobs/${card.jobId}/card/paper.pdf`} target="_blank" rel="noreferrer">
            Print the card
          </a>
          <Link to={`/jobs/${card.jobId}/card`}>Card</Link>
        </span>
      </div>
      {!card.started && (
        <p>
          The vehicle is not checked in yet.{' '}
          <Link to={`/jobs/${card.jobId}/card`}>Check it in</Link> first, then type in what was
          written on its card.
        </p>
      )}
      {card.started && steps.length === 0 && <p>Every step of this card is answered.</p>}
      {card.started && steps.length > 0 && (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            send.mutate();
          }}
        >
          <p className="hint">
            In the order of the card, as far as it was worked. All of it is entered, or nothing;
            each answer is marked as from paper.
          </p>
          {left.map((p) => (
            <section key={p.code}>
              <h3>
                {p.code} {p.title}
                {p.steps.some((s) => s.task === 'TICK') && (
                  <button
                    type="button"
                    className="link beside"
                    onClick={() =>
                      p.steps
                        .filter((s) => s.task === 'TICK')
                        .forEach((s) => put(s.code, { ticked: true }))
                    }
                  >
                    all plain boxes ticked
                  </button>
                )}
              </h3>
              <table className="plain">
                <tbody>
                  {p.steps.map((s) => (
                    <tr key={s.code}>
                      <td className="paper-step">
                        {s.title}
                        {s.gate && <span className="second">gate</span>}
                      </td>
                      <td>
                        <Writing step={s} written={written[s.code] ?? {}} put={put} />
                        {unread.includes(s) && (
                          <span className="field-note" role="alert">
                            This cannot be read as a figure.
                          </span>
                        )}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </section>
          ))}
          <div className="recall-fields">
            <Field id="worked-by" label="Who worked by the card" error={send.error} at="/workedBy">
              <Input
                id="worked-by"
                value={workedBy}
                maxLength={120}
                onChange={(e) => setWorkedBy(e.target.value)}
              />
            </Field>
            <Button
              type="primary"
              htmlType="submit"
              loading={send.isPending}
              disabled={entries.length === 0 || unread.length > 0 || workedBy.trim() === ''}
            >
              Enter {entries.length} {entries.length === 1 ? 'answer' : 'answers'}
            </Button>
          </div>
          <ProblemNote error={send.error} />
        </form>
      )}
    </div>
  );
}

function Writing({
  step,
  written,
  put,
}: {
  step: Step;
  written: Written;
  put: (step: string, part: Written) => void;
}) {
  const set = (part: Written) => put(step.code, part);
  const text = (
    key: 'figure' | 'angle' | 'old' | 'onWheels' | 'oldAgain' | 'again' | 'reason',
    label: string,
    unit = '',
  ) => (
    <Input
      aria-label={`${step.title}: ${label}`}
      placeholder={label}
      suffix={unit || undefined}
      value={written[key] ?? ''}
      onChange={(e) => set({ [key]: e.target.value })}
    />
  );
  const tick = (words: string) => (
    <Checkbox
      checked={written.ticked ?? false}
      onChange={(e) => set({ ticked: e.target.checked })}
      aria-label={`${step.title}: ${words}`}
    >
      {words}
    </Checkbox>
  );
  switch (step.task) {
    case 'TICK':
      return tick('done');
    case 'CONFIRM':
      return tick('it is so');
    case 'TURN':
      return tick('done, no stop');
    case 'PASSES':
      return tick(`all ${step.pattern?.passes ?? 1} passes`);
    case 'INSPECT':
      return (
        <Select
          aria-label={step.title}
          mode={step.takesSeveral ? 'multiple' : undefined}
          placeholder="what was seen"
          allowClear
          value={step.takesSeveral ? (written.choice ?? []) : written.choice?.[0]}
          options={step.results.map((r) => ({ value: r.words, label: r.words }))}
          onChange={(v: string | string[] | undefined) =>
            set({ choice: v === undefined ? [] : Array.isArray(v) ? v : [v] })
          }
        />
      );
    case 'CHOOSE':
      return (
        <span className="paper-row">
          <Select
            aria-label={step.title}
            allowClear
            value={written.choice?.[0]}
            options={step.options.map((o) => ({ value: o.code, label: o.words }))}
            onChange={(v: string | undefined) => set({ choice: v ? [v] : [] })}
          />
          {step.options.some((o) => o.needsReason && o.code === written.choice?.[0]) &&
            text('reason', 'why')}
        </span>
      );
    case 'CHECK':
    case 'MARKS':
      return (
        <span className="paper-row">
          {tick('looked at')}
          {written.ticked && (
            <Select
              aria-label={`${step.title}: ${step.wrong}`}
              mode="multiple"
              allowClear
              placeholder={`all ${step.right}; ${step.wrong}: none`}
              value={written.wrong ?? []}
              options={step.points.map((p) => ({ value: p, label: `${p}: ${step.wrong}` }))}
              onChange={(v: string[]) => set({ wrong: v })}
            />
          )}
        </span>
      );
    case 'COUNT':
      return text('figure', `of ${step.expected} ${step.what}`);
    case 'MEASURE':
      return text('figure', 'figure', step.measure?.unit);
    case 'TIGHTEN':
      return (
        <span className="paper-row">
          {text('figure', step.book ? `book ${step.book.nm}` : 'torque', 'N·m')}
          {step.book?.angleDegrees !== undefined &&
            text('angle', `book ${step.book.angleDegrees}`, '°')}
        </span>
      );
    case 'MARK_TO_MARK':
      return (
        <span className="paper-row">
          {text('old', `old, ${step.points.length} spans: 20 31 …`)}
          {text('oldAgain', 'old, again')}
          {text('figure', 'new')}
          {text('again', 'new, again')}
        </span>
      );
    case 'RUNS':
      return (
        <span className="paper-row">
          {text('old', `old, ${step.points.length} runs: 20 31 …`)}
          {text('figure', 'new, run by run')}
          {text('onWheels', 'on the wheels')}
        </span>
      );
  }
}
