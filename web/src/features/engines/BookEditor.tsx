import { useQuery } from '@tanstack/react-query';
import { Button, Input, Popconfirm, Select } from 'antd';
import { useState } from 'react';
import { Problem, type Schemas } from '../../api/client';
import { ProblemNote } from '../../shared/ProblemNote';
import { BookPathPicture, LoopFit, pathWords } from '../../drawing/BookPathPicture';
import { schemaQuery, useDrawPath, useFileBook } from './engineQueries';
import { put, type Json, type JsonSchema } from './schemaForm';
import { SchemaField } from './SchemaField';
import { Leave } from '../../shared/ui/Leave';

/** The parts of a book, in the order one writes it. */
const SECTIONS: { title: string; fields: string[] }[] = [
  {
    title: 'The engine',
    fields: [
      'name',
      'drive',
      'interference',
      'crankFit',
      'reference',
      'tensioner',
      'pinOutBeforeTurns',
      'mountInTheWay',
      'blankingPlugs',
      'coolantLitres',
      'pins',
      'moveOver',
      'cautions',
    ],
  },
  { title: 'How it is built', fields: ['build'] },
  { title: 'Path', fields: ['path'] },
  { title: 'Handling', fields: ['handling'] },
  { title: 'Items', fields: ['items'] },
  { title: 'Access steps', fields: ['accessSteps'] },
  { title: 'Joints', fields: ['joints'] },
  { title: 'Variants', fields: ['variants'] },
  { title: 'Tools and kits', fields: ['tools', 'kits'] },
  { title: 'Repair', fields: ['repair'] },
];

/** Edits the whole of a book; what is filed is its next version. */
export function BookEditor({
  view,
  at = '',
  onClose,
}: {
  view: Schemas['FamilyView'];
  /** pointer, from the family on, of the place to begin at */
  at?: string;
  onClose: () => void;
}) {
  const { data: schema, error: noSchema } = useQuery(schemaQuery);
  const [family, setFamily] = useState<Json>(view.family as Json);
  const [section, setSection] = useState(() =>
    Math.max(
      0,
      SECTIONS.findIndex((s) => s.fields.includes(at.split('/')[1] ?? '')),
    ),
  );
  const [note, setNote] = useState('');
  const file = useFileBook(view.code, onClose);
  const draw = useDrawPath();
  const error = file.error ?? draw.error;
  if (noSchema) return <ProblemNote error={noSchema} />;
  if (!schema) return <p className="hint loading">Reading the form…</p>;
  const changed = family !== view.family;
  const faults = (fields: string[]) =>
    error instanceof Problem
      ? error.errors.filter((e) =>
          fields.some((f) => e.pointer === `/family/${f}` || e.pointer.startsWith(`/family/${f}/`)),
        ).length
      : 0;
  const shown = SECTIONS[section]!;
  return (
    <form
      className="book-editor"
      onSubmit={(e) => {
        e.preventDefault();
        draw.reset();
        file.mutate({
          family: family as Record<string, never>,
          version: view.newest,
          note,
        });
      }}
    >
      <nav aria-label="Parts of the book">
        {SECTIONS.map((s, i) => (
          <button
            key={s.title}
            type="button"
            className={i === section ? 'on' : ''}
            aria-current={i === section}
            onClick={() => setSection(i)}
          >
            {s.title}
            {faults(s.fields) > 0 && <span className="late"> {faults(s.fields)} wrong</span>}
          </button>
        ))}
      </nav>
      <div className="book-section">
        {shown.title === 'Path' && (
          <Drawings
            family={family}
            version={view.newest}
            draw={draw}
            onDraw={() => file.reset()}
            onChange={setFamily}
          />
        )}
        {shown.fields
          .filter((f) => schema.properties?.[f])
          .map((f) => (
            <SchemaField
              key={f}
              schema={schema.properties![f] as JsonSchema}
              value={(family as Record<string, Json>)[f] ?? null}
              path={[f]}
              family={family}
              error={error}
              onChange={(path, value) => setFamily((now) => put(now, path, value))}
            />
          ))}
      </div>
      <div className="book-file">
        {error && !(error instanceof Problem && error.errors.length > 0) && (
          <ProblemNote error={error} />
        )}
        {error instanceof Problem && error.errors.length > 0 && (
          <div className="problem" role="alert">
            <strong>{draw.error ? 'Not drawn.' : 'Not filed.'}</strong>{' '}
            {error.errors.length === 1 ? 'One thing is' : `${error.errors.length} things are`}{' '}
            wrong:
            <ul>
              {error.errors.map((e, i) => (
                <li key={i}>
                  <code>{e.pointer.replace('/family', '')}</code> {e.detail}
                </li>
              ))}
            </ul>
          </div>
        )}
        <label htmlFor="book-note">Why it is changed</label>
        <Input
          id="book-note"
          value={note}
          maxLength={200}
          onChange={(e) => setNote(e.target.value)}
        />
        <div className="actions">
          <Button type="primary" htmlType="submit" disabled={!changed} loading={file.isPending}>
            File version {view.newest + 1}
          </Button>
          {changed ? (
            <Popconfirm
              title="Leave without filing?"
              description="What you changed here is lost."
              okText="Leave it"
              cancelText="Go on"
              onConfirm={onClose}
            >
              <button type="button" className="action" data-leave="">
                Leave it
              </button>
            </Popconfirm>
          ) : (
            <Leave onClick={onClose} />
          )}
        </div>
      </div>
    </form>
  );
}

type Drawn = Schemas['LoopView'];

/** The drawings there are: the family's own path, and those of the loops of its build. */
function drawings(family: Json) {
  const f = family as {
    path?: unknown;
    build?: { loops?: { code: string; name: string; drawing?: unknown }[] } | null;
  };
  return [
    ...(f.path ? [{ loop: undefined as string | undefined, name: 'Path', at: ['path'] }] : []),
    ...(f.build?.loops ?? []).flatMap((l, i) =>
      l.drawing
        ? [
            {
              loop: l.code,
              name: l.name,
              at: ['build', 'loops', i, 'drawing'] as (string | number)[],
            },
          ]
        : [],
    ),
  ];
}

/** A drawing tried out: its wheels are dragged or moved by keys, and what they come to is said as they are let go. */
function Drawings({
  family,
  version,
  draw,
  onDraw,
  onChange,
}: {
  family: Json;
  version: number;
  draw: ReturnType<typeof useDrawPath>;
  onDraw: () => void;
  onChange: (family: Json) => void;
}) {
  const all = drawings(family);
  const [chosen, setChosen] = useState(0);
  // where the wheels are while one is carried; the server judges it once it is let go
  const [carried, setCarried] = useState<Drawn>();
  const of = all[Math.min(chosen, all.length - 1)];
  if (!of)
    return (
      <p className="hint">
        There is no drawing yet; cards do not need it. Begin one below with its wheels in running
        order, then draw it here and drag them to their places.
      </p>
    );
  const ask = (now: Json) => {
    onDraw();
    draw.mutate(
      { loop: of.loop, family: now as Record<string, never>, version },
      { onSettled: () => setCarried(undefined) },
    );
  };
  const shown = carried ?? draw.data;
  return (
    <div className="path-try">
      {all.length > 1 && (
        <Select
          aria-label="Drawing"
          value={chosen}
          popupMatchSelectWidth={false}
          onChange={(i) => {
            setChosen(i);
            draw.reset();
          }}
          options={all.map((d, i) => ({ value: i, label: d.name }))}
        />
      )}
      <Button loading={draw.isPending} onClick={() => ask(family)}>
        Draw it as it stands here
      </Button>
      {shown && (
        <>
          <p className="hint">Drag a wheel, or choose it and use the arrow keys.</p>
          <BookPathPicture
            path={shown}
            onMove={(i, x, y, done) => {
              const next = put(
                put(family, [...of.at, 'pulleys', i, 'x'], x),
                [...of.at, 'pulleys', i, 'y'],
                y,
              );
              onChange(next);
              setCarried({
                ...shown,
                pulleys: shown.pulleys.map((p, k) => (k === i ? { ...p, x, y } : p)),
              });
              if (done) ask(next);
            }}
          />
          <LoopFit path={shown} />
          <p className="hint">{pathWords(shown)}</p>
        </>
      )}
    </div>
  );
}
