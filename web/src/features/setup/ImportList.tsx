import { useQuery } from '@tanstack/react-query';
import { Button, Input, Popconfirm, Progress, Radio, Select } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { Problem, type Schemas } from '../../api/client';
import { formatMoment } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { DateField } from '../../shared/ui/DateField';
import { NumberField } from '../../shared/ui/NumberField';
import { choicesQuery } from '../desk/deskQueries';
import {
  importsQuery,
  mappingsQuery,
  progressQuery,
  useBadLines,
  useImport,
  useKeepMapping,
  usePreview,
  useTakeBack,
  type Said,
} from './importQueries';

type Preview = Schemas['Preview'];
type Line = Preview['lines'][number];

const KINDS = [
  { value: 'VEHICLES', label: 'vehicles' },
  { value: 'READINGS', label: 'odometer readings' },
  { value: 'RENEWALS', label: 'renewals' },
  { value: 'PARTS', label: 'parts and prices' },
  { value: 'PEOPLE', label: 'people' },
];
const ENCODINGS = [
  'UTF-8',
  'windows-1252',
  'UTF-16LE',
  'UTF-16BE',
  'ISO-8859-15',
  'windows-1250',
  'IBM850',
];
const SEPARATORS = [
  { value: ';', label: 'semicolon ;' },
  { value: ',', label: 'comma ,' },
  { value: '\t', label: 'tab' },
  { value: '|', label: 'bar |' },
];
const ACTIONS: Record<Line['action'], string> = {
  NEW: 'new',
  UPDATE: 'changed',
  SKIP: 'on file, left',
  SAME: 'on file like this',
  BAD: 'not taken',
};
/** Lists longer than this show how far they are. */
const LONG = 1000;

/** A list as people have it: how it is understood is shown and can be changed, then it is taken. */
export default function ImportList() {
  const { manages } = useMe();
  const [file, setFile] = useState<File>();
  const [said, setSaid] = useState<Said>({});
  const [taken, setTaken] = useState<Schemas['Imported']>();
  const preview = usePreview();
  const take = useImport((result) => {
    setTaken(result);
    setFile(undefined);
    preview.reset();
  });
  const look = (next: Said, of = file) => {
    setSaid(next);
    take.reset();
    if (of) preview.mutate({ file: of, said: next });
  };
  const choose = (chosen?: File) => {
    setFile(chosen);
    setTaken(undefined);
    preview.reset();
    if (chosen) look({}, chosen);
  };
  const list = preview.data;
  const atFile = preview.error instanceof Problem ? preview.error.at('/file') : undefined;
  return (
    <section className="import">
      <div className="import-choose">
        <label className="file-button" htmlFor="file">
          Choose a list
        </label>
        <input
          id="file"
          type="file"
          accept=".csv,.txt,.tsv,.xlsx,text/csv"
          onChange={(e) => {
            choose(e.target.files?.[0]);
            e.target.value = '';
          }}
        />
        {file && <span className="file-name">{file.name}</span>}
        <span className="hint">
          CSV, text or .xlsx as your program gives it out: its encoding, columns, dates and numbers
          are found out and shown. Empty lists to fill:{' '}
          {KINDS.map((k, i) => (
            <span key={k.value}>
              {i > 0 && ', '}
              <a href={`/api/imports/template?kind=${k.value}`} download>
                {k.label}
              </a>
            </span>
          ))}
          . What is on file, in the same form:{' '}
          {KINDS.filter((k) => manages || k.value !== 'PEOPLE').map((k, i) => (
            <span key={k.value}>
              {i > 0 && ', '}
              <a href={`/api/imports/list?kind=${k.value}`} download>
                {k.label}
              </a>
            </span>
          ))}
          .
        </span>
      </div>
      {atFile && (
        <div className="field-note" role="alert">
          {atFile}
        </div>
      )}
      {!atFile && <ProblemNote error={preview.error} />}
      {taken && <Taken taken={taken} />}
      {list && file && (
        <>
          <Understood list={list} said={said} onSaid={look} />
          <Columns list={list} said={said} onSaid={look} />
          <Lines list={list} file={file} said={said} pending={preview.isPending} />
          <ProblemNote error={take.error} />
          <TakeIn
            list={list}
            said={said}
            onSaid={setSaid}
            pending={take.isPending}
            onTake={() => take.mutate({ file, said })}
          />
        </>
      )}
      {!file && <TakenBefore />}
    </section>
  );
}

function Taken({ taken }: { taken: Schemas['Imported'] }) {
  const what = KINDS.find((k) => k.value === taken.kind)?.label ?? 'lines';
  const rest = [
    taken.changed > 0 && `${taken.changed} changed`,
    taken.left > 0 && `${taken.left} on file and left`,
    taken.bad > 0 && `${taken.bad} not taken`,
  ].filter(Boolean);
  return (
    <p className="done" role="status">
      {taken.made} {what} taken in{rest.length > 0 && `; ${rest.join(', ')}`}.{' '}
      <Link
        to={taken.kind === 'PARTS' ? '/stores' : taken.kind === 'PEOPLE' ? '/setup/people' : '/'}
      >
        {taken.kind === 'PARTS'
          ? 'See the Stores'
          : taken.kind === 'PEOPLE'
            ? 'Give them passwords'
            : 'See the Desk'}
      </Link>
    </p>
  );
}

/** What was found out of the file, each of it changeable. */
function Understood({
  list,
  said,
  onSaid,
}: {
  list: Preview;
  said: Said;
  onSaid: (said: Said) => void;
}) {
  const me = useMe();
  const { data: choices } = useQuery(choicesQuery);
  const { data: mappings } = useQuery(mappingsQuery);
  const field = (id: string, label: string, control: React.ReactNode) => (
    <div>
      <label htmlFor={id}>{label}</label>
      {control}
    </div>
  );
  return (
    <div className="form understood">
      <h2>How it is understood</h2>
      <div className="fields">
        {field(
          'import-kind',
          'It holds',
          <Select
            id="import-kind"
            value={list.kind}
            popupMatchSelectWidth={false}
            // other fields: the columns are found out anew
            onChange={(kind) => onSaid({ ...said, kind, columns: undefined })}
            options={KINDS}
          />,
        )}
        {!list.spreadsheet &&
          field(
            'import-encoding',
            'Encoding',
            <Select
              id="import-encoding"
              value={list.encoding}
              popupMatchSelectWidth={false}
              onChange={(encoding) => onSaid({ ...said, encoding })}
              options={ENCODINGS.map((e) => ({ value: e, label: e }))}
            />,
          )}
        {!list.spreadsheet &&
          field(
            'import-separator',
            'Cells are parted by',
            <Select
              id="import-separator"
              value={list.separator}
              popupMatchSelectWidth={false}
              onChange={(separator) => onSaid({ ...said, separator, columns: undefined })}
              options={SEPARATORS}
            />,
          )}
        {field(
          'import-header',
          'Names stand in line',
          <NumberField
            id="import-header"
            value={list.headerRow}
            onChange={(headerRow) =>
              headerRow !== undefined && onSaid({ ...said, headerRow, columns: undefined })
            }
          />,
        )}
        {field(
          'import-style',
          'Numbers',
          <Select
            id="import-style"
            value={list.style ?? ''}
            popupMatchSelectWidth={false}
            onChange={(style) => onSaid({ ...said, style: (style || undefined) as Said['style'] })}
            options={[
              { value: 'POINT', label: '64,785.30' },
              { value: 'COMMA', label: '64.785,30' },
              { value: '', label: 'none with decimals' },
            ]}
          />,
        )}
        {field(
          'import-order',
          'Dates',
          <Select
            id="import-order"
            value={list.order ?? ''}
            popupMatchSelectWidth={false}
            status={list.order ? '' : 'warning'}
            onChange={(order) => onSaid({ ...said, order: (order || undefined) as Said['order'] })}
            options={[
              { value: 'DAY_FIRST', label: 'day first: 30.04.2019' },
              { value: 'MONTH_FIRST', label: 'month first: 04/30/2019' },
              { value: 'YEAR_FIRST', label: 'year first: 2019-04-30' },
              { value: '', label: 'not shown by the list' },
            ]}
          />,
        )}
        {list.kind !== 'PARTS' &&
          list.kind !== 'PEOPLE' &&
          field(
            'import-unit',
            'Odometers count',
            <Select
              id="import-unit"
              value={list.unit}
              onChange={(unit) => onSaid({ ...said, unit })}
              options={[
                { value: 'KM', label: 'km' },
                { value: 'MILES', label: 'miles' },
              ]}
            />,
          )}
        {list.kind === 'VEHICLES' &&
          list.columns.ODOMETER !== undefined &&
          list.columns.ODOMETER_DATE === undefined &&
          field(
            'import-read-on',
            'They were read on',
            <DateField
              id="import-read-on"
              value={list.readOn}
              today={me.today}
              max={me.today}
              onChange={(readOn) => readOn && onSaid({ ...said, readOn })}
            />,
          )}
        {list.kind === 'VEHICLES' &&
          field(
            'import-class',
            'Usage, where it says none',
            <Select
              id="import-class"
              value={list.usageClass}
              popupMatchSelectWidth={false}
              onChange={(usageClass) => onSaid({ ...said, usageClass })}
              options={(choices?.usageClasses ?? []).map((c) => ({
                value: c.code,
                label: c.words,
              }))}
            />,
          )}
        {(list.kind === 'VEHICLES' || list.kind === 'PARTS' || list.kind === 'PEOPLE') &&
          field(
            'import-existing',
            'What is on file',
            <Select
              id="import-existing"
              value={list.existing}
              popupMatchSelectWidth={false}
              onChange={(existing) => onSaid({ ...said, existing })}
              options={[
                { value: 'SKIP', label: 'is left as it is' },
                { value: 'UPDATE', label: 'takes over what the list says' },
              ]}
            />,
          )}
        {(mappings?.length ?? 0) > 0 &&
          field(
            'import-mapping',
            'As once before',
            <Select
              id="import-mapping"
              value={undefined}
              placeholder="choose"
              popupMatchSelectWidth={false}
              onChange={(name: string) =>
                onSaid(applied(mappings!.find((m) => m.name === name)!.body, list))
              }
              options={mappings!.map((m) => ({ value: m.name, label: m.name }))}
            />,
          )}
      </div>
    </div>
  );
}

interface KeptMapping {
  said: Said;
  headings: Record<string, string>;
}

/** A kept mapping knows columns by their headings, so that it fits where they stand in another order. */
function applied(body: string, list: Preview): Said {
  const kept = JSON.parse(body) as KeptMapping;
  return {
    ...kept.said,
    columns: Object.fromEntries(
      Object.entries(kept.headings)
        .map(([field, heading]) => [field, list.headings.indexOf(heading)] as const)
        .filter(([, column]) => column >= 0),
    ),
  };
}

function Columns({
  list,
  said,
  onSaid,
}: {
  list: Preview;
  said: Said;
  onSaid: (said: Said) => void;
}) {
  const fieldOf = (column: number) =>
    Object.entries(list.columns).find(([, c]) => c === column)?.[0] ?? '';
  const set = (column: number, field: string) => {
    const columns = Object.fromEntries(
      Object.entries(list.columns).filter(([f, c]) => c !== column && f !== field),
    ) as Record<string, number>;
    if (field) columns[field] = column;
    onSaid({ ...said, kind: list.kind, columns });
  };
  const [name, setName] = useState('');
  const keep = useKeepMapping(() => setName(''));
  return (
    <div className="form">
      <h2>Columns</h2>
      {list.missing.length > 0 && (
        <p className="warning-note" role="status">
          Say which column holds: {list.missing.map((m) => m.words.toLowerCase()).join(', ')}.
        </p>
      )}
      <div className="import-columns">
        {list.headings.map((h, i) => (
          <div key={i} className={fieldOf(i) ? '' : 'left-out'}>
            <label htmlFor={`column-${i}`}>{h}</label>
            <span className="hint">
              {list.samples
                .map((r) => r[i])
                .filter(Boolean)
                .join(' · ') || 'empty'}
            </span>
            <Select
              id={`column-${i}`}
              value={fieldOf(i)}
              popupMatchSelectWidth={false}
              onChange={(f) => set(i, f)}
              options={[
                { value: '', label: 'not taken' },
                ...list.fields.map((f) => ({
                  value: f.field,
                  label: f.needed ? `${f.words} (needed)` : f.words,
                })),
              ]}
            />
          </div>
        ))}
      </div>
      <div className="keep-mapping">
        <label htmlFor="mapping-name">Keep this for the next list of its kind, as</label>
        <Input
          id="mapping-name"
          value={name}
          maxLength={60}
          onChange={(e) => setName(e.target.value)}
        />
        <Button
          disabled={!name.trim()}
          loading={keep.isPending}
          onClick={() =>
            keep.mutate({
              name,
              body: JSON.stringify({
                said: { ...said, kind: list.kind, columns: undefined },
                headings: Object.fromEntries(
                  Object.entries(list.columns).map(([f, c]) => [f, list.headings[c]!]),
                ),
              }),
            })
          }
        >
          Keep
        </Button>
        <ProblemNote error={keep.error} />
      </div>
    </div>
  );
}

function Lines({
  list,
  file,
  said,
  pending,
}: {
  list: Preview;
  file: File;
  said: Said;
  pending: boolean;
}) {
  const [only, setOnly] = useState(false);
  const bad = useBadLines();
  const fields = list.fields.filter((f) => list.columns[f.field] !== undefined);
  const shown = list.lines.filter((l) => !only || l.action === 'BAD');
  if (list.missing.length > 0) return null;
  return (
    <>
      <div className="import-counts">
        <h2>
          {list.total} {list.total === 1 ? 'line' : 'lines'}
        </h2>
        <span role="status">
          {(Object.keys(ACTIONS) as Line['action'][])
            .filter((a) => (list.actions[a] ?? 0) > 0)
            .map((a) => `${list.actions[a]} ${ACTIONS[a]}`)
            .join(', ')}
          {pending && ' · reading it again…'}
        </span>
        {list.bad > 0 && (
          <>
            <button className="link" onClick={() => setOnly(!only)}>
              {only ? 'Show all' : 'Only those not taken'}
            </button>
            <button className="link" onClick={() => bad.mutate({ file, said })}>
              Give out the lines to mend
            </button>
          </>
        )}
      </div>
      <ProblemNote error={bad.error} />
      <div className="import-table">
        <table className="plain">
          <thead>
            <tr>
              <th className="num">Line</th>
              <th>Becomes</th>
              {fields.map((f) => (
                <th key={f.field}>{f.words}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.map((l) => (
              <tr key={l.line} className={l.action === 'BAD' ? 'bad-line' : ''}>
                <td className="num">{l.line}</td>
                <td>
                  {ACTIONS[l.action]}
                  {l.problems.map((p, i) => (
                    <span key={i} className="field-note">
                      {p.column}: {p.detail}
                    </span>
                  ))}
                  {l.warnings.map((p, i) => (
                    <span key={i} className="second warning-note">
                      {p.column}: {p.detail}
                    </span>
                  ))}
                </td>
                {fields.map((f) => (
                  <td key={f.field}>{l.values[f.field] ?? ''}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {list.total > list.lines.length && (
        <p className="hint">and {list.total - list.lines.length} more lines like these</p>
      )}
    </>
  );
}

function TakeIn({
  list,
  said,
  onSaid,
  pending,
  onTake,
}: {
  list: Preview;
  said: Said;
  onSaid: (said: Said) => void;
  pending: boolean;
  onTake: () => void;
}) {
  const { data: progress } = useQuery(progressQuery(pending && list.total > LONG));
  const taking = (list.actions.NEW ?? 0) + (list.actions.UPDATE ?? 0);
  const all = list.bad === 0 || said.takeGood === true;
  return (
    <div className="actions sticky">
      {list.bad > 0 && (
        <Radio.Group
          value={said.takeGood === true}
          onChange={(e) => onSaid({ ...said, takeGood: e.target.value as boolean })}
          options={[
            { value: false, label: 'all or nothing' },
            { value: true, label: `the good ones, without the ${list.bad} at fault` },
          ]}
        />
      )}
      <Button
        type="primary"
        disabled={!all || taking === 0 || list.missing.length > 0}
        loading={pending}
        onClick={onTake}
      >
        Take in {taking} {taking === 1 ? 'line' : 'lines'}
      </Button>
      {pending && progress && progress.total > 0 && (
        <Progress
          aria-label="Lines taken in"
          percent={Math.floor((100 * progress.done) / progress.total)}
        />
      )}
      <span className="hint">
        {taking === 0
          ? 'Nothing in it is new.'
          : 'The whole of it can be taken back while nothing rests on it.'}
      </span>
    </div>
  );
}

/** Lists that were taken in, each of which can be taken back as a whole. */
function TakenBefore() {
  const { data: batches, error } = useQuery(importsQuery);
  const back = useTakeBack();
  if (error) return <ProblemNote error={error} />;
  if (!batches || batches.length === 0) return null;
  return (
    <>
      <h2>Taken in before</h2>
      <ProblemNote error={back.error} />
      <table className="plain">
        <thead>
          <tr>
            <th>List</th>
            <th>Held</th>
            <th className="num">New</th>
            <th className="num">Changed</th>
            <th>Taken in by</th>
            <th>
              <span className="unseen">What to do</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {batches.map((b) => (
            <tr key={b.id}>
              <td>{b.fileName}</td>
              <td>{b.kind}</td>
              <td className="num">{b.made}</td>
              <td className="num">{b.changed}</td>
              <td>
                {b.by}, {formatMoment(b.at)}
              </td>
              <td className="num">
                <Popconfirm
                  title="Take this list back?"
                  description="What it made goes, and what it changed is as it was before."
                  okText="Take it back"
                  cancelText="Leave it"
                  onConfirm={() => back.mutate(b.id)}
                >
                  <button className="link">Take back</button>
                </Popconfirm>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
