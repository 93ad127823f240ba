import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { minorOf } from '../../shared/money';
import { useMe } from '../../shared/me';
import { Calculators } from '../calculators/Calculators';
import { choicesQuery } from '../desk/deskQueries';
import { type Bench, type Card, type Entry, type EntryOf, type Step } from './cardQueries';
import { benchIsBright, setBench } from '../../theme/look';
import { Choices } from './Choices';
import { ToolPieces } from './PartsInHand';
import { PictureForm } from './PictureForm';
import type { Sheet } from './sheets';

type Why = NonNullable<EntryOf<'PAUSE'>['why']>;

const WHY: { code: Why; words: string }[] = [
  { code: 'PARTS', words: 'parts' },
  { code: 'OWNER', words: 'the owner’s answer' },
  { code: 'FERRY', words: 'the delivery' },
  { code: 'TOOLS', words: 'tools' },
  { code: 'ANOTHER_JOB', words: 'another job' },
  { code: 'BREAK', words: 'a break' },
  { code: 'END_OF_DAY', words: 'the next day' },
  { code: 'OTHER', words: 'something else' },
];

/** What makes sense only where parts are renewed. */
const OF_PARTS: Sheet[] = ['goes-back', 'batch', 'tools'];

const MENU: { sheet: Sheet; title: string; hint: string }[] = [
  { sheet: 'found', title: 'Something found', hint: 'on the timing drive: evidence, lines, owner' },
  { sheet: 'picture', title: 'Picture', hint: 'to the step in focus' },
  { sheet: 'more-work', title: 'More work than planned', hint: 'sheared stud, bent bolt' },
  {
    sheet: 'goes-back',
    title: 'The old part goes back',
    hint: 'the new one is the wrong one',
  },
  {
    sheet: 'tools',
    title: 'A tool is broken or missing',
    hint: 'Stores and the Board know at once',
  },
  { sheet: 'batch', title: 'Batch of a new part', hint: 'as printed on it: for a recall' },
  { sheet: 'side', title: 'Side finding', hint: 'not this job: becomes a follow-up' },
  { sheet: 'wait', title: 'The job waits', hint: 'parts, delivery, owner, next day' },
  { sheet: 'hand-over', title: 'Hand over', hint: 'to another technician' },
  { sheet: 'recheck', title: 'Recheck later', hint: 'stands on the Desk when it is due' },
  { sheet: 'calculators', title: 'Calculators', hint: 'torque, teeth, tension, coolant' },
];

/** What can be done beside the steps, over the step in focus. */
export function BenchMenu({
  card,
  step,
  bench,
  sheet,
  onSheet,
}: {
  card: Card;
  step?: Step;
  bench: Bench;
  sheet: Sheet;
  onSheet: (sheet?: Sheet) => void;
}) {
  const me = useMe();
  const here = card.worked.present.includes(me.name ?? '');
  const done = async (entry: Entry) => {
    if (await bench.enter(entry)) onSheet(undefined);
  };
  return (
    <section className="bench-step sign sheet" aria-label="Beside the steps">
      <div className="step-head">
        <h1>
          {sheet === 'menu' ? 'Beside the steps' : MENU.find((m) => m.sheet === sheet)?.title}
        </h1>
        <button
          className="bench-button"
          onClick={() => onSheet(sheet === 'menu' ? undefined : 'menu')}
        >
          {sheet === 'menu' ? 'Back to the step' : 'Back'}
        </button>
      </div>
      {bench.refused && (
        <p className="bench-warning" role="alert">
          {bench.refused.problem.message}
        </p>
      )}
      {sheet === 'menu' && (
        <>
          <div className="sheet-menu">
            {MENU.filter((m) => !card.inspection || !OF_PARTS.includes(m.sheet)).map((m) => (
              <button key={m.sheet} className="bench-button" onClick={() => onSheet(m.sheet)}>
                <b>{m.title}</b>
                <span className="muted">{m.hint}</span>
              </button>
            ))}
          </div>
          <button
            className="bench-button wide"
            disabled={bench.busy}
            onClick={() => void done({ type: here ? 'LEAVE' : 'JOIN' })}
          >
            {here ? 'I leave it to the others' : 'I work on it too'}
          </button>
          <BenchLight />
          <p className="muted">
            A day without tablets:{' '}
            <a href={`/api/jobs/${card.jobId}/card/paper.pdf`} target="_blank" rel="noreferrer">
              print the card
            </a>
            , and <Link to={`/jobs/${card.jobId}/paper`}>type it in afterwards</Link>.
          </p>
          <NotedSoFar card={card} />
        </>
      )}
      {sheet === 'wait' && <Wait busy={bench.busy} onSend={(e) => void done(e)} />}
      {sheet === 'hand-over' && (
        <HandOver card={card} mine={me.name ?? ''} busy={bench.busy} onSend={(e) => void done(e)} />
      )}
      {sheet === 'found' && <Found step={step} busy={bench.busy} onSend={(e) => void done(e)} />}
      {sheet === 'side' && <Side busy={bench.busy} onSend={(e) => void done(e)} />}
      {sheet === 'more-work' && step && (
        <MoreWork
          step={step}
          currency={me.currency}
          busy={bench.busy}
          onSend={(e) => void done(e)}
        />
      )}
      {sheet === 'goes-back' && (
        <GoesBack card={card} busy={bench.busy} onSend={(e) => void done(e)} />
      )}
      {sheet === 'tools' && <ToolPieces card={card} bench={bench} />}
      {sheet === 'batch' && <Batch card={card} busy={bench.busy} onSend={(e) => void done(e)} />}
      {sheet === 'recheck' && <Recheck busy={bench.busy} onSend={(e) => void done(e)} />}
      {sheet === 'picture' && step && (
        <PictureForm
          title={step.title}
          subjects={step.task === 'MARKS' ? step.points : []}
          pending={bench.busy}
          onSend={(file, caption) =>
            void bench
              .act({ photo: { file, step: step.code, caption } })
              .then((wrong) => !wrong && onSheet(undefined))
          }
        />
      )}
      {sheet === 'calculators' && <Calculators path={card.path} />}
    </section>
  );
}

/** What stands beside the steps already, so that nothing is noted twice. */
function NotedSoFar({ card }: { card: Card }) {
  const noted = [
    ...card.findings.map(
      (f) => `Found: ${f.words}${f.note && f.note !== f.words ? `, ${f.note}` : ''}`,
    ),
    ...card.sideFindings.map((f) => `${f.urgent ? 'Urgent follow-up' : 'Follow-up'}: ${f.words}`),
    ...card.contingencies.map((c) => `Not planned: ${c.what}, ${c.minutes} min`),
    ...card.rechecks.map((r) => `Recheck in ${r.days} days: ${r.what}`),
  ];
  if (noted.length === 0) return null;
  return (
    <>
      <h2>Noted so far</h2>
      <ul className="notes">
        {noted.map((n, i) => (
          <li key={i}>{n}</li>
        ))}
      </ul>
    </>
  );
}

interface FormProps {
  busy: boolean;
  onSend: (entry: Entry) => void;
}

function Wait({ busy, onSend }: FormProps) {
  const [why, setWhy] = useState<Why>();
  const [words, setWords] = useState('');
  return (
    <>
      <p>What does the job wait for?</p>
      <Choices
        options={WHY.map((w) => [w.code, w.words] as const)}
        chosen={why}
        onChoose={setWhy}
      />
      <Words id="wait-words" label="In a few words" value={words} onChange={setWords} />
      <button
        className="bench-button action wide"
        disabled={busy || !why}
        onClick={() => onSend({ type: 'PAUSE', why, words })}
      >
        It waits
      </button>
    </>
  );
}

function HandOver({ card, mine, busy, onSend }: FormProps & { card: Card; mine: string }) {
  const [to, setTo] = useState<string>();
  const [words, setWords] = useState('');
  const others = card.technicians.filter((t) => t !== mine);
  return (
    <>
      <p>Who goes on with it?</p>
      <Choices options={others.map((t) => [t, t] as const)} chosen={to} onChoose={setTo} />
      {others.length === 0 && <p className="muted">There is no other technician.</p>}
      <Words
        id="hand-words"
        label="What the next one must know"
        value={words}
        onChange={setWords}
      />
      <button
        className="bench-button action wide"
        disabled={busy || !to}
        onClick={() => onSend({ type: 'HAND_OVER', option: to, words })}
      >
        Hand over{to && ` to ${to}`}
      </button>
    </>
  );
}

function Found({ step, busy, onSend }: FormProps & { step?: Step }) {
  const { data: choices } = useQuery(choicesQuery);
  const [evidence, setEvidence] = useState<EntryOf<'FOUND'>['evidence']>();
  const [words, setWords] = useState('');
  const chosen = choices?.evidence.find((e) => e.code === evidence);
  return (
    <>
      <p>
        What was found{step && ` at “${step.title}”`}? It becomes evidence of the vehicle; what it
        asks for is offered as lines.
      </p>
      <Choices
        options={(choices?.evidence ?? []).map((e) => [e.code, e.words] as const)}
        chosen={evidence}
        onChoose={setEvidence}
      />
      {chosen?.advice && <p className="bench-caution">{chosen.advice}</p>}
      <Words id="found-note" label="In a few words" value={words} onChange={setWords} />
      <button
        className="bench-button action wide"
        disabled={busy || !evidence}
        onClick={() => onSend({ type: 'FOUND', evidence, step: step?.code, words })}
      >
        Note it
      </button>
    </>
  );
}

function Side({ busy, onSend }: FormProps) {
  const [words, setWords] = useState('');
  const [urgent, setUrgent] = useState(false);
  return (
    <>
      <Words id="side-words" label="What was seen" value={words} onChange={setWords} />
      <button
        className={urgent ? 'bench-button wide on' : 'bench-button wide'}
        aria-pressed={urgent}
        onClick={() => setUrgent(!urgent)}
      >
        {urgent ? 'Urgent: not to be driven like that' : 'Not urgent'}
      </button>
      <button
        className="bench-button action wide"
        disabled={busy || words.trim() === ''}
        onClick={() => onSend({ type: 'SIDE_FINDING', words, urgent })}
      >
        Note it for follow-up
      </button>
    </>
  );
}

/** Work nobody planned, such as a sheared stud, with its minutes and what it takes. */
export function MoreWork({
  step,
  about = '',
  currency,
  busy,
  onSend,
}: FormProps & { step: Step; about?: string; currency: string }) {
  const [words, setWords] = useState(about);
  const [minutes, setMinutes] = useState('');
  const [part, setPart] = useState('');
  const [price, setPrice] = useState('');
  const [joint, setJoint] = useState<string>();
  const n = Number(minutes);
  const minor = minorOf(price, currency);
  return (
    <>
      <Words id="more-words" label="What happened" value={words} onChange={setWords} />
      {step.joints.length > 0 && <Joints joints={step.joints} chosen={joint} onChoose={setJoint} />}
      <Line
        id="more-minutes"
        label="Minutes it adds"
        value={minutes}
        onChange={setMinutes}
        numeric
      />
      <Line id="more-part" label="Part it takes; empty for none" value={part} onChange={setPart} />
      {part.trim() !== '' && (
        <Line
          id="more-price"
          label={`Price of the part, before tax, ${currency}`}
          value={price}
          onChange={setPrice}
          numeric
        />
      )}
      <button
        className="bench-button action wide"
        disabled={
          busy || words.trim() === '' || !Number.isInteger(n) || n < 1 || Number.isNaN(minor)
        }
        onClick={() =>
          onSend({
            type: 'CONTINGENCY',
            step: step.code,
            words,
            minutes: n,
            part,
            partMinor: part.trim() === '' ? 0 : minor,
            joint,
          })
        }
      >
        Add it to the job
      </button>
    </>
  );
}

/** Which joint broke; the card then gets the stub out before anything goes on over it. */
function Joints({
  joints,
  chosen,
  onChoose,
}: {
  joints: Step['joints'];
  chosen?: string;
  onChoose: (code?: string) => void;
}) {
  return (
    <fieldset className="bench-choice">
      <legend>Did a stud or bolt break off?</legend>
      <Choices<string | undefined>
        options={[
          [undefined, 'nothing broke off'],
          ...joints.map((j) => [j.code, j.name] as const),
        ]}
        chosen={chosen}
        onChoose={onChoose}
      />
      {chosen && (
        <p className="muted">
          The card gets a step for the stub; what covers it comes off again, and new one-time bolts
          are asked for.
        </p>
      )}
    </fieldset>
  );
}

/** An item whose new part is not the right one leaves the job. */
function GoesBack({ card, busy, onSend }: FormProps & { card: Card }) {
  const [item, setItem] = useState<string>();
  const [words, setWords] = useState('');
  if (card.mayGoBack.length === 0)
    return <p className="muted">All that this job renews is on already, or waits for the owner.</p>;
  return (
    <>
      <p className="muted">
        If the right part is on its way, let the job wait instead. An item that goes back keeps its
        clock and becomes a follow-up.
      </p>
      <Choices
        options={card.mayGoBack.map((i) => [i.code, i.name] as const)}
        chosen={item}
        onChoose={setItem}
      />
      <Words
        id="back-words"
        label="What is wrong with the new one"
        value={words}
        onChange={setWords}
      />
      <button
        className="bench-button action wide"
        disabled={busy || !item || words.trim() === ''}
        onClick={() => onSend({ type: 'GOES_BACK', item, words })}
      >
        The old one goes back
      </button>
    </>
  );
}

function Batch({ card, busy, onSend }: FormProps & { card: Card }) {
  const [item, setItem] = useState<string>();
  const [batch, setBatch] = useState('');
  return (
    <>
      <Choices
        options={card.batches.map(
          (i) => [i.code, i.batch ? `${i.name}: ${i.batch}` : i.name] as const,
        )}
        chosen={item}
        onChoose={setItem}
      />
      <label htmlFor="batch">Batch, as printed on the part</label>
      <input id="batch" value={batch} maxLength={60} onChange={(e) => setBatch(e.target.value)} />
      <button
        className="bench-button action wide"
        disabled={busy || !item || batch.trim() === ''}
        onClick={() => onSend({ type: 'BATCH', item, words: batch })}
      >
        Note it
      </button>
    </>
  );
}

const DAYS = [1, 7, 14, 30];

function Recheck({ busy, onSend }: FormProps) {
  const [words, setWords] = useState('');
  const [days, setDays] = useState(7);
  return (
    <>
      <Words id="recheck-words" label="What to look at again" value={words} onChange={setWords} />
      <Choices
        options={DAYS.map((d) => [d, d === 1 ? 'tomorrow' : `in ${d} days`] as const)}
        chosen={days}
        onChoose={setDays}
      />
      <button
        className="bench-button action wide"
        disabled={busy || words.trim() === ''}
        onClick={() => onSend({ type: 'RECHECK', words, days })}
      >
        Ask for it
      </button>
    </>
  );
}

export function Words({
  id,
  label,
  value,
  onChange,
}: {
  id: string;
  label: string;
  value: string;
  onChange: (v: string) => void;
}) {
  return (
    <>
      <label htmlFor={id}>{label}</label>
      <textarea
        id={id}
        rows={2}
        maxLength={400}
        value={value}
        onChange={(e) => onChange(e.target.value)}
      />
    </>
  );
}

function Line({
  id,
  label,
  value,
  onChange,
  numeric = false,
}: {
  id: string;
  label: string;
  value: string;
  onChange: (v: string) => void;
  numeric?: boolean;
}) {
  return (
    <>
      <label htmlFor={id}>{label}</label>
      <input
        id={id}
        value={value}
        inputMode={numeric ? 'decimal' : undefined}
        maxLength={120}
        onChange={(e) => onChange(e.target.value)}
      />
    </>
  );
}

/** By the door a dark page mirrors; under the lamp a bright one blinds. */
function BenchLight() {
  const [bright, setBright] = useState(benchIsBright);
  return (
    <div role="group" aria-label="This tablet’s page" className="bench-light">
      <span className="label">This tablet’s page</span>
      <Choices
        columns="three"
        options={
          [
            ['dark', 'dark'],
            ['bright', 'bright'],
          ] as const
        }
        chosen={bright ? 'bright' : 'dark'}
        onChoose={(c) => {
          setBench(c === 'bright');
          setBright(c === 'bright');
        }}
      />
    </div>
  );
}
