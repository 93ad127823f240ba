import { Checkbox } from 'antd';
import type { Schemas } from '../../api/client';
import { InterferenceMark } from '../../drawing/marks';
import {
  capital,
  distanceUnit,
  formatDate,
  formatKm,
  formatMoney,
  formatNumber,
  formatWhole,
  inUnit,
} from '../../shared/format';
import { ProblemNote } from '../../shared/ProblemNote';
import { useConditions } from './dossierQueries';

type View = Schemas['DossierView'];

/** Why the vehicle stands as it does, in sentences. */
export function Reasons({ v, currency }: { v: View; currency: string }) {
  return (
    <section aria-label="Reasons">
      <dl className="reasons">
        {v.reasons.map((r, i) => (
          <div key={i}>
            <dt>{r.topic !== v.reasons[i - 1]?.topic && r.topic}</dt>
            <dd>{r.text}</dd>
          </div>
        ))}
        {v.ifItGoes && (
          <div>
            <dt>If it goes</dt>
            <dd>
              {v.interference === 'NO'
                ? 'Recovery, the job and days off the road: '
                : 'Engine, recovery and days off the road: '}
              {formatMoney(v.ifItGoes.likelyMinor, currency)}
              {v.ifItGoes.lowMinor !== v.ifItGoes.highMinor &&
                `, from ${formatMoney(v.ifItGoes.lowMinor, currency)} to ${formatMoney(v.ifItGoes.highMinor, currency)}`}
              {v.exposurePerWeekMinor === undefined
                ? '. Exposure not known.'
                : `. Waiting a week exposes ${formatMoney(v.exposurePerWeekMinor, currency)}, by these bills alone.`}
            </dd>
          </div>
        )}
      </dl>
    </section>
  );
}

/** The conditions that put it on the severe schedule. */
export function Conditions({ v, editable }: { v: View; editable: boolean }) {
  const change = useConditions(v.id);
  const applying = v.conditions.filter((c) => c.applies);
  return (
    <section>
      <h3>Hard use</h3>
      {editable ? (
        <div className="checks">
          {v.conditions.map((c) => (
            <Checkbox
              key={c.code}
              checked={change.isPending ? change.variables.conditions.includes(c.code) : c.applies}
              disabled={change.isPending}
              onChange={(e) =>
                change.mutate({
                  version: v.version,
                  conditions: v.conditions
                    .filter((x) => (x.code === c.code ? e.target.checked : x.applies))
                    .map((x) => x.code),
                })
              }
            >
              {c.words}
            </Checkbox>
          ))}
        </div>
      ) : (
        <p>{applying.length ? applying.map((c) => c.words).join(', ') : 'none'}</p>
      )}
      <ProblemNote error={change.error} />
    </section>
  );
}

/** What each item has used of its limits. */
export function Items({ v }: { v: View }) {
  if (v.items.length === 0) return null;
  return (
    <section>
      <h3>
        Item clocks {v.interference && <InterferenceMark value={v.interference} />}{' '}
        <span className="hint">{v.family}</span>
      </h3>
      <table className="plain">
        <thead>
          <tr>
            <th>Item</th>
            <th>Since</th>
            <th className="num">Distance, {distanceUnit()}</th>
            <th className="num">Age, months</th>
            <th>Act by</th>
          </tr>
        </thead>
        <tbody>
          {v.items.map((i) => (
            <tr key={i.code}>
              <td>
                {i.name}
                {i.inspection && <span className="hint"> inspect</span>}
              </td>
              <td>
                {i.renewedOn ? formatDate(i.renewedOn) : <span className="hint">not known</span>}
                {i.renewedKm !== undefined && (
                  <span className="second">{formatKm(i.renewedKm)}</span>
                )}
              </td>
              <td className={i.binding === 'DISTANCE' ? 'num binds' : 'num'}>
                {i.usedKm === undefined || i.limitKm === undefined
                  ? ''
                  : `${formatWhole(inUnit(i.usedKm))} of ${formatWhole(inUnit(i.limitKm))}`}
              </td>
              <td className={i.binding === 'AGE' ? 'num binds' : 'num'}>
                {i.usedMonths === undefined ? '' : `${i.usedMonths} of ${i.limitMonths}`}
              </td>
              <td>
                {i.actBy ? formatDate(i.actBy) : ''}
                <span className="second">
                  {i.status === 'NO_BOOK' ? 'no limit of its own' : i.statusWords}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** What is believed of its usage and where that comes from, and the interval that would cost least. */
export function Usage({ v, currency }: { v: View; currency: string }) {
  const u = v.usage;
  const e = v.economic;
  return (
    <section>
      <h3>Usage and economy</h3>
      <dl className="reasons">
        <div>
          <dt>A year</dt>
          <dd>
            {formatKm(hundred(u.kmPerYear))}, give or take {formatKm(hundred(u.spreadKmPerYear))}.{' '}
            {u.observedKmPerYear === undefined
              ? 'Its readings do not say yet.'
              : `Its own readings say ${formatKm(hundred(u.observedKmPerYear))}.`}
          </dd>
        </div>
        <div>
          <dt>Class</dt>
          <dd>
            {capital(u.usageClass)}: {formatKm(hundred(u.classKmPerYear))} a year, give or take{' '}
            {formatKm(hundred(u.classSpreadKmPerYear))}
            {u.learned
              ? `, learned from ${u.learnedFrom} of the workshop’s vehicles`
              : ', as assumed in Setup'}
            .
          </dd>
        </div>
        {v.idleHoursPerYear > 0 && (
          <div>
            <dt>Idling</dt>
            <dd>{formatNumber(v.idleHoursPerYear)} hours a year.</dd>
          </div>
        )}
        {v.ownTiming && (
          <div>
            <dt>Own limits</dt>
            <dd>{v.ownTiming.reason}</dd>
          </div>
        )}
        {e && (
          <div>
            <dt>Cheapest</dt>
            <dd>
              {e.years !== undefined &&
                e.km !== undefined &&
                `Every ${e.years.toFixed(1)} years or ${formatKm(Math.round(e.km / 1000) * 1000)}: ${formatMoney(e.perYearMinor ?? 0, currency)} a year${
                  e.perYearAtBookMinor === undefined
                    ? ''
                    : `; at the book limit ${formatMoney(e.perYearAtBookMinor, currency)}`
                }. `}
              {e.words}
            </dd>
          </div>
        )}
      </dl>
    </section>
  );
}

const hundred = (km: number) => Math.round(km / 100) * 100;
