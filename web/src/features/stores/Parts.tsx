import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Input, Select } from 'antd';
import { Fragment, useState } from 'react';
import { useSearchParams } from 'react-router';
import { api, data, Problem, type Schemas } from '../../api/client';
import { formatKm, formatMoney, formatWeekday } from '../../shared/format';
import { amountOf, minorOf } from '../../shared/money';
import { faulty, Field } from '../../shared/forms';
import { useOutside } from '../../shared/outside';
import { useMe } from '../../shared/me';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { enginesQuery } from '../engines/engineQueries';
import { stockQuery, useCount } from './storesQueries';
import { numberOf } from '../../shared/ui/spelling';
import { Leave } from '../../shared/ui/Leave';

type Part = Schemas['PartView'];

const partsQuery = queryOptions({
  queryKey: ['parts'],
  queryFn: () => data(api.GET('/api/parts')),
});

const GRADES = [
  { value: 'ORIGINAL', label: 'original' },
  { value: 'EQUAL', label: 'of equal grade' },
  { value: 'PLAIN', label: 'plain' },
] as const;

/** The catalogue of parts, and what the supplier has of them today. */
export default function Parts() {
  const { currency, desk } = useMe();
  const { delivery } = useOutside();
  const { data: parts, error, refetch } = useQuery(partsQuery);
  const { data: stock } = useQuery(stockQuery);
  const [search, setSearch] = useSearchParams();
  const family = search.get('family') ?? '';
  const q = search.get('q') ?? '';
  const [open, setOpen] = useState<Part | 'new'>();
  const narrow = (name: string, value: string) =>
    setSearch(
      (now) => {
        if (value) now.set(name, value);
        else now.delete(name);
        return now;
      },
      { replace: true },
    );
  const shown = parts?.filter(
    (p) =>
      (!family || p.familyCode === family) &&
      `${p.number} ${p.name} ${p.item}`.toLowerCase().includes(q.toLowerCase()),
  );
  const families = [...new Map(parts?.map((p) => [p.familyCode, p.family])).entries()];
  return (
    <div className="stores">
      <header className="stores-head">
        <h1>Parts</h1>
        <Select
          aria-label="Engine family"
          value={family}
          onChange={(v: string) => narrow('family', v)}
          popupMatchSelectWidth={false}
          options={[
            { value: '', label: 'all families' },
            ...families.map(([value, label]) => ({ value, label })),
          ]}
        />
        <Input
          aria-label="Number, name or item"
          placeholder="Number, name or item"
          value={q}
          allowClear
          onChange={(e) => narrow('q', e.target.value)}
        />
        {desk && <Button onClick={() => setOpen('new')}>Add a part</Button>}
      </header>
      <ProblemNote error={error} retry={() => refetch()} />
      {desk && <OfBooks />}
      {open === 'new' && <PartForm family={family} onClose={() => setOpen(undefined)} />}
      {shown?.length === 0 && (
        <p>
          No part fits.{' '}
          <button className="link" onClick={() => setSearch({})}>
            Show all
          </button>
        </p>
      )}
      {shown && shown.length > 0 && (
        <table className="plain parts">
          <thead>
            <tr>
              <th>Number</th>
              <th>Part</th>
              <th>Engine family</th>
              <th>Grade</th>
              <th className="num">Price</th>
              <th className="num">Life</th>
              <th>Fit</th>
              <th className="num">In the house</th>
              <th>Supplier</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((p) => (
              <Fragment key={p.number}>
                <tr>
                  <td>
                    <button
                      className="line-name part-number"
                      disabled={!desk}
                      aria-expanded={open !== 'new' && open?.number === p.number}
                      onClick={() => setOpen(p)}
                    >
                      {p.number}
                    </button>
                    {p.replaces && <span className="second">for {p.replaces}</span>}
                  </td>
                  <td>{p.name}</td>
                  <td>{p.family}</td>
                  <td>{p.gradeWords}</td>
                  <td className="num">{formatMoney(p.priceMinor, currency)}</td>
                  <td className="num">{p.expectedKm ? formatKm(p.expectedKm) : 'not known'}</td>
                  <td>{fit(p)}</td>
                  <td className="num">
                    <Counted part={p.number} shelf={stock?.find((x) => x.part === p.number)} />
                  </td>
                  <td>
                    {p.stock > 0 ? `${p.stock} in stock` : `none, ${p.leadDays} days`}
                    <span className="second">
                      here {formatWeekday(p.here)} with the {delivery}
                    </span>
                  </td>
                </tr>
                {open !== 'new' && open?.number === p.number && (
                  <tr className="part-row">
                    <td colSpan={9}>
                      <PartForm part={p} family={family} onClose={() => setOpen(undefined)} />
                    </td>
                  </tr>
                )}
              </Fragment>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

/** Pieces on the shelf; a click lets them be counted anew. */
function Counted({ part, shelf }: { part: string; shelf?: Schemas['ShelfView'] }) {
  const { desk } = useMe();
  const [text, setText] = useState<string>();
  const count = useCount(part);
  if (text === undefined)
    return desk ? (
      <button
        className="line-name"
        aria-label={`${shelf?.pieces ?? 0} of ${part} in the house; count anew`}
        onClick={() => setText(String(shelf?.pieces ?? 0))}
      >
        {shelf?.pieces ?? 0}
      </button>
    ) : (
      <>{shelf?.pieces ?? 0}</>
    );
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        count.mutate(
          { pieces: text.trim() === '' ? -1 : Number(text), version: shelf?.version ?? 0 },
          { onSuccess: () => setText(undefined) },
        );
      }}
    >
      <Input
        size="small"
        autoFocus
        aria-label={`Pieces of ${part} counted`}
        value={text}
        status={faulty(count.error, '/pieces')}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => e.key === 'Escape' && setText(undefined)}
      />
      <FieldNote error={count.error} at="/pieces" />
      <ProblemNote error={count.error} beside={['/pieces']} />
    </form>
  );
}

function fit(p: Part): string {
  return [
    p.teeth && `${p.teeth} teeth`,
    p.widthMm && `${p.widthMm} mm wide`,
    p.lengthMm && `${p.lengthMm} mm long`,
    p.thicknessMm && `${p.thicknessMm} mm thick`,
    p.side,
  ]
    .filter(Boolean)
    .join(', ');
}

const number = (text: string) => (text.trim() === '' ? undefined : numberOf(text, 3));
const FIELDS = [
  '/number',
  '/name',
  '/familyCode',
  '/itemCode',
  '/priceMinor',
  '/expectedKm',
  '/leadDays',
  '/teeth',
  '/widthMm',
  '/lengthMm',
  '/thicknessMm',
];

function PartForm({ part, family, onClose }: { part?: Part; family: string; onClose: () => void }) {
  const { currency } = useMe();
  const client = useQueryClient();
  const { data: families } = useQuery(enginesQuery);
  const [text, setText] = useState({
    number: part?.number ?? '',
    name: part?.name ?? '',
    price: part ? amountOf(part.priceMinor, currency) : '',
    life: part?.expectedKm?.toString() ?? '',
    lead: part?.leadDays.toString() ?? '3',
    replaces: part?.replaces ?? '',
    teeth: part?.teeth?.toString() ?? '',
    width: part?.widthMm?.toString() ?? '',
    length: part?.lengthMm?.toString() ?? '',
    thickness: part?.thicknessMm?.toString() ?? '',
    side: part?.side ?? '',
  });
  const [familyCode, setFamily] = useState(part?.familyCode ?? family);
  const [itemCode, setItem] = useState(part?.itemCode ?? '');
  const [grade, setGrade] = useState<Part['grade']>(part?.grade ?? 'ORIGINAL');
  const { data: items } = useQuery({
    ...itemsQuery(familyCode),
    enabled: familyCode !== '',
  });
  const store = useMutation({
    mutationFn: () => {
      const body = {
        number: text.number,
        name: text.name,
        familyCode,
        itemCode,
        grade,
        priceMinor: text.price.trim() === '' ? -1 : minorOf(text.price, currency),
        expectedKm: number(text.life.replace(/[ ,]/g, '')),
        leadDays: number(text.lead) ?? -1,
        replaces: text.replaces || undefined,
        teeth: number(text.teeth),
        widthMm: number(text.width),
        lengthMm: number(text.length),
        thicknessMm: number(text.thickness),
        side: text.side || undefined,
        version: part?.version ?? 0,
      };
      return part
        ? data(api.PUT('/api/parts/{number}', { params: { path: { number: part.number } }, body }))
        : data(api.POST('/api/parts', { body }));
    },
    onSuccess: async (list) => {
      client.setQueryData(partsQuery.queryKey, list);
      onClose();
      await client.invalidateQueries({ queryKey: ['job'] });
    },
  });
  const field = (
    key: keyof typeof text,
    label: string,
    at: string,
    suffix?: string,
    grow = false,
  ) => (
    <Field id={`part-${key}`} label={label} error={store.error} at={at} grow={grow}>
      <Input
        id={`part-${key}`}
        value={text[key]}
        suffix={suffix}
        disabled={key === 'number' && part !== undefined}
        status={faulty(store.error, at)}
        onChange={(e) => setText({ ...text, [key]: e.target.value })}
      />
    </Field>
  );
  const beside = store.error instanceof Problem && store.error.onlyAt(...FIELDS);
  return (
    <form
      className="form card-form part-form"
      onSubmit={(e) => {
        e.preventDefault();
        store.mutate();
      }}
    >
      <h2>{part ? `Part ${part.number}` : 'A new part'}</h2>
      <div className="fields">
        {field('number', 'Number', '/number')}
        {field('name', 'Name', '/name', undefined, true)}
        <Field id="part-family" label="Engine family" error={store.error} at="/familyCode">
          <Select
            id="part-family"
            value={familyCode || undefined}
            placeholder="Choose"
            popupMatchSelectWidth={false}
            onChange={(v: string) => (setFamily(v), setItem(''))}
            options={families?.map((f) => ({ value: f.code, label: f.name }))}
          />
        </Field>
        <Field id="part-item" label="Fitted as" error={store.error} at="/itemCode">
          <Select
            id="part-item"
            value={itemCode || undefined}
            placeholder="Choose"
            popupMatchSelectWidth={false}
            onChange={setItem}
            options={items}
          />
        </Field>
        <Field id="part-grade" label="Grade">
          <Select
            id="part-grade"
            value={grade}
            popupMatchSelectWidth={false}
            onChange={setGrade}
            options={[...GRADES]}
          />
        </Field>
      </div>
      <div className="fields">
        {field('price', 'Price', '/priceMinor', currency)}
        {field('life', 'Expected life', '/expectedKm', 'km')}
        {field('lead', 'Lead time', '/leadDays', 'days')}
        {field('replaces', 'Stands for number', '/replaces')}
        {field('teeth', 'Teeth or links', '/teeth')}
        {field('width', 'Width', '/widthMm', 'mm')}
        {field('length', 'Length', '/lengthMm', 'mm')}
        {field('thickness', 'Thickness', '/thicknessMm', 'mm')}
        {field('side', 'Side', '/side')}
      </div>
      {!beside && <ProblemNote error={store.error} />}
      <div className="actions">
        <Button type="primary" htmlType="submit" loading={store.isPending}>
          {part ? 'Keep the change' : 'Add the part'}
        </Button>
        <Leave onClick={onClose} />
      </div>
    </form>
  );
}

/** Items of a family that a part can be fitted as. */
const itemsQuery = (code: string) =>
  queryOptions({
    queryKey: ['engines', code, 'items'],
    queryFn: async () => {
      const view = await data(api.GET('/api/engines/{code}', { params: { path: { code } } }));
      const items = view.family.items as { code: string; name: string }[];
      return items.map((i) => ({ value: i.code, label: i.name }));
    },
  });

const booksQuery = queryOptions({
  queryKey: ['parts', 'of-books'],
  queryFn: () => data(api.GET('/api/parts/of-books')),
});

/** Books that name parts the catalogue has not; each taken in with one touch, and out again. */
function OfBooks() {
  const client = useQueryClient();
  const { data: books } = useQuery(booksQuery);
  const [taken, setTaken] = useState<Schemas['NumberAndVersion'][]>();
  const takeIn = useMutation({
    mutationFn: (code: string) =>
      data(api.POST('/api/parts/of-books/{code}', { params: { path: { code } } })),
    onSuccess: (r) => {
      setTaken(r.taken);
      return client.invalidateQueries();
    },
  });
  const back = useMutation({
    mutationFn: (parts: Schemas['NumberAndVersion'][]) =>
      data(api.POST('/api/parts/removals', { body: parts })),
    onSuccess: () => {
      setTaken(undefined);
      return client.invalidateQueries();
    },
  });
  if (!books || (books.length === 0 && !taken)) return null;
  return (
    <section className="of-books">
      <ProblemNote error={takeIn.error ?? back.error} />
      {taken && (
        <p role="status">
          {taken.length === 1 ? 'One part is' : `${taken.length} parts are`} in the catalogue now.{' '}
          <button className="link" onClick={() => back.mutate(taken)}>
            Take that back
          </button>
        </p>
      )}
      <ul className="plain">
        {books.map((b) => (
          <li key={b.familyCode}>
            The book of {b.family} names {b.parts} {b.parts === 1 ? 'part' : 'parts'} that the
            catalogue has not.{' '}
            <button
              className="link"
              disabled={takeIn.isPending}
              onClick={() => takeIn.mutate(b.familyCode)}
            >
              Take {b.parts === 1 ? 'it' : 'them'} in at the book’s prices
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
