import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Input, Radio } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { DAYS } from '../../shared/days';
import { faulty, Field } from '../../shared/forms';
import { ProblemNote } from '../../shared/ProblemNote';
import { ReadingFeeds } from './ReadingFeeds';
import { outsideQuery, useChangeOutside } from './setupQueries';
import { TimeField } from '../../shared/ui/TimeField';

type State = Schemas['OutsideView'];

const DEVICES = [
  {
    key: 'faultCodes',
    name: 'Fault-code reader',
    without: 'what it says is noted by hand, with who read it',
  },
  {
    key: 'beltMeter',
    name: 'Belt-frequency meter',
    without: 'what it shows is typed on the job card',
  },
  {
    key: 'parts',
    name: 'Parts supplier',
    without: 'parts take the days the catalogue says; stock is your own shelf',
  },
] as const;

/** What is connected to the workshop, and when parts come. */
export default function Outside() {
  const { data, error, refetch } = useQuery(outsideQuery);
  if (error) return <ProblemNote error={error} retry={() => refetch()} />;
  if (!data) return <p className="hint loading">Reading what is connected…</p>;
  return (
    <>
      <Form key={data.version} now={data} />
      <ReadingFeeds />
    </>
  );
}

function Form({ now }: { now: State }) {
  const [s, setS] = useState(now);
  const change = useChangeOutside();
  const changed = JSON.stringify(s) !== JSON.stringify(now);
  return (
    <form
      className="form outside"
      onSubmit={(e) => {
        e.preventDefault();
        change.mutate(s);
      }}
    >
      <h2>Devices and services</h2>
      <p className="hint">
        Nothing is connected until you say so. A stand-in is for trying out: it makes its answers
        up, they are marked “simulated” wherever they show, and nothing becomes due by them.
      </p>
      <table className="plain people">
        <tbody>
          {DEVICES.map((d) => (
            <tr key={d.key}>
              <td>
                <b id={`device-${d.key}`}>{d.name}</b>
                <span className="second">without it: {d.without}</span>
              </td>
              <td>
                <Radio.Group
                  aria-labelledby={`device-${d.key}`}
                  value={s[d.key]}
                  onChange={(e) => setS({ ...s, [d.key]: e.target.value as boolean })}
                  options={[
                    { value: false, label: 'not connected' },
                    { value: true, label: 'stand-in, simulated' },
                  ]}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2>Deliveries</h2>
      <div className="fields">
        <Field
          id="delivery-name"
          label="What a delivery is called"
          error={change.error}
          at="/deliveryName"
        >
          <Input
            id="delivery-name"
            value={s.deliveryName}
            maxLength={30}
            status={faulty(change.error, '/deliveryName')}
            onChange={(e) => setS({ ...s, deliveryName: e.target.value })}
          />
        </Field>
        <Field
          id="delivery-cut-off"
          label="Ordered after this time counts as the next day; empty: any time"
          error={change.error}
          at="/cutOff"
        >
          <TimeField
            id="delivery-cut-off"
            value={s.cutOff}
            onChange={(cutOff) => setS({ ...s, cutOff })}
          />
        </Field>
        <fieldset>
          <legend>Days on which parts come; none: any day from Monday to Friday</legend>
          <Checkbox.Group
            value={s.deliveryDays}
            onChange={(deliveryDays) => setS({ ...s, deliveryDays })}
            options={DAYS}
          />
        </fieldset>
      </div>
      <ProblemNote error={change.error} beside={['/deliveryName']} />
      <div className="actions">
        <Button type="primary" htmlType="submit" disabled={!changed} loading={change.isPending}>
          Save
        </Button>
        {changed && (
          <button type="button" className="action" onClick={() => setS(now)}>
            As it was
          </button>
        )}
      </div>
    </form>
  );
}
