import { useQuery } from '@tanstack/react-query';
import { Select } from 'antd';
import { choicesQuery, type DeskParams, type Order } from './deskQueries';

const ORDERS: { value: Order; label: string }[] = [
  { value: 'EXPOSURE', label: 'by exposure' },
  { value: 'PER_HOUR', label: 'by exposure per hour of work' },
  { value: 'ACT_BY', label: 'by act-by date' },
  { value: 'STATUS', label: 'by status' },
];
const WITHIN = [0, 14, 30, 60, 90, 180, 365];
const INTERFERENCE = [
  { value: 'YES', label: 'interference' },
  { value: 'NO', label: 'no interference' },
  { value: 'UNKNOWN', label: 'unconfirmed' },
];

/** What narrows the list, said as words; each stands in the address. */
export function DeskFilters({
  filter,
  set,
  ordered = true,
}: {
  filter: DeskParams;
  set: (name: string, value?: string) => void;
  /** Offers what only the Desk's list has: act-by, vehicle state, order. */
  ordered?: boolean;
}) {
  const { data: choices } = useQuery(choicesQuery);
  const pick = (
    name: string,
    label: string,
    all: string,
    value: string | undefined,
    options: { value: string; label: string }[],
  ) => (
    <Select
      variant="borderless"
      aria-label={label}
      className={value ? 'picked' : ''}
      value={value ?? ''}
      onChange={(v) => set(name, v || undefined)}
      popupMatchSelectWidth={false}
      options={[{ value: '', label: all }, ...options]}
      showSearch={options.length > 10 ? { optionFilterProp: 'label' } : false}
    />
  );
  const coded = (list?: { code: string; words: string }[]) =>
    (list ?? []).map((c) => ({ value: c.code, label: c.words }));
  return (
    <div className="filters" role="group" aria-label="Narrow the list">
      {pick(
        'fleet',
        'Fleet',
        'all fleets',
        filter.fleet === undefined ? undefined : String(filter.fleet),
        (choices?.fleets ?? []).map((f) => ({ value: String(f.id), label: f.name })),
      )}
      {pick('drive', 'Drive', 'every drive', filter.drive ?? undefined, coded(choices?.drives))}
      {pick(
        'family',
        'Engine family',
        'every engine',
        filter.family ?? undefined,
        coded(choices?.families),
      )}
      {pick(
        'interference',
        'Interference',
        'interference or not',
        filter.interference ?? undefined,
        INTERFERENCE,
      )}
      {ordered && (
        <>
          {pick(
            'within',
            'Act by within',
            'any act-by',
            filter.within === undefined ? undefined : String(filter.within),
            WITHIN.map((d) => ({
              value: String(d),
              label: d === 0 ? 'act by today' : `act by within ${d} days`,
            })),
          )}
          {pick(
            'state',
            'Vehicle state',
            'in use, laid up',
            filter.state?.[0],
            coded(choices?.states),
          )}
          <Select
            variant="borderless"
            className="order"
            aria-label="Order of the list"
            value={filter.order ?? 'EXPOSURE'}
            onChange={(v) => set('order', v === 'EXPOSURE' ? undefined : v)}
            popupMatchSelectWidth={false}
            options={ORDERS}
          />
        </>
      )}
    </div>
  );
}
