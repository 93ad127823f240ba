import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { problem, sent, serve, show } from '../../test/render';
import { RenewalForm, StateForm, TimingForm } from './FileForms';
import { CallForm, DeclineForm, TripForm } from './OwnerForms';
import VehicleForm from './VehicleForm';

const vehicle = {
  id: 7,
  version: 3,
  ownerName: 'Tamsin Orde',
  ownerPhone: '0555 1',
  sentence: 'Past the limit.',
  state: { kind: 'IN_USE', words: 'in use' },
  items: [{ code: 'belt', name: 'Timing belt' }],
} as Schemas['DossierView'];
const states = ['IN_USE', 'LAID_UP', 'SOLD'].map((code) => ({
  code,
  words: code.toLowerCase().replace('_', ' '),
}));
const choices = { 'GET /api/desk/choices': { body: { states } } };

const fill = (label: string | RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));

function open(Form: typeof CallForm, answers: Parameters<typeof serve>[0]) {
  const close = vi.fn();
  const calls = serve({ ...choices, ...answers });
  show(<Form v={vehicle} today="2026-11-25" onClose={close} />);
  return { close, body: () => sent(calls).at(-1)?.body };
}

describe('forms about the owner', () => {
  it('note a call, with a day to ask again only where one was given', async () => {
    const { close, body } = open(CallForm, { 'POST /api/vehicles/7/calls': { body: {} } });
    fill('What was said', 'away');
    press('Note the call');
    await waitFor(() => expect(close).toHaveBeenCalled());
    expect(body()).toEqual({ spokeWith: 'Tamsin Orde', note: 'away' });
  });

  it('say beside the field what is wrong and keep what was typed', async () => {
    const { close } = open(CallForm, {
      'POST /api/vehicles/7/calls': problem('/askAgainOn', 'The day must lie after today.'),
    });
    fill('What was said', 'away');
    fill('Ask again on, if wished', '2026-11-20');
    press('Note the call');
    await screen.findByText('The day must lie after today.');
    expect(close).not.toHaveBeenCalled();
    expect(screen.getByLabelText<HTMLTextAreaElement>('What was said').value).toBe('away');
    expect(screen.queryByText('Not done.')).toBeNull();
  });

  it('note a decline with the words in which the risk was told', async () => {
    const { body } = open(DeclineForm, { 'POST /api/vehicles/7/declines': { body: {} } });
    expect(screen.getByText('Past the limit.')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Note the decline' })).toHaveProperty(
      'disabled',
      true,
    );
    fill('How the risk was told, in words', 'it may break the engine');
    fill('Holds until', '2027-03-01');
    press('Note the decline');
    await waitFor(() =>
      expect(body()).toEqual({
        declinedBy: 'Tamsin Orde',
        told: 'it may break the engine',
        until: '2027-03-01',
      }),
    );
  });

  it('add a trip with its distance as typed', async () => {
    const { body } = open(TripForm, { 'POST /api/vehicles/7/trips': { body: {} } });
    fill('Back on', '2027-01-10');
    fill('Beyond everyday use', '9,000');
    press('Add the trip');
    await waitFor(() =>
      expect(body()).toEqual({ from: '2026-11-25', to: '2027-01-10', extraKm: 9_000 }),
    );
  });
});

describe('forms about the vehicle', () => {
  it('record a renewal with its proof', async () => {
    const { body } = open(RenewalForm, { 'POST /api/vehicles/7/renewals': { body: {} } });
    fill('Renewed on', '2024-05-01');
    fill('At odometer', '98,000');
    press('Record it');
    await waitFor(() =>
      expect(body()).toMatchObject({
        item: 'belt',
        date: '2024-05-01',
        km: 98_000,
        grade: 'DOCUMENTED',
      }),
    );
  });

  it('ask since when only of a vehicle that is not in use', async () => {
    const { body } = open(StateForm, { 'PUT /api/vehicles/7/state': { body: {} } });
    await screen.findByText('laid up');
    expect(screen.queryByLabelText('Since')).toBeNull();
    fireEvent.click(screen.getByText('laid up'));
    fill('Since', '2026-10-01');
    press('Keep');
    await waitFor(() =>
      expect(body()).toEqual({ state: 'LAID_UP', since: '2026-10-01', version: 3 }),
    );
  });

  it('send a timing of its own as a share, and none where the workshop’s is taken', async () => {
    const { body } = open(TimingForm, { 'PUT /api/vehicles/7/own-timing': { body: {} } });
    fireEvent.click(screen.getByText('early'));
    fill('Share of each limit, %', '80');
    fill('Why', 'tows a boat');
    press('Keep');
    await waitFor(() =>
      expect(body()).toMatchObject({
        kind: 'EARLY',
        share: 0.8,
        reason: 'tows a boat',
        version: 3,
      }),
    );
    fireEvent.click(screen.getByText('as the workshop'));
    press('Keep');
    await waitFor(() => expect(body()).not.toHaveProperty('kind'));
  });
});

describe('a new vehicle', () => {
  const server = {
    'GET /api/me': {
      body: {
        role: 'MANAGER',
        today: '2026-11-25',
        currency: 'EUR',
        unit: 'KM',
        numbers: 'COMMA_POINT',
        zone: 'UTC',
      },
    },
    'GET /api/desk/choices': {
      body: {
        families: [],
        fleets: [],
        usageClasses: [],
        conditions: [],
        equipment: [],
        usual: {},
      },
    },
    'GET /api/vehicles/vin-warning': { body: ['The ninth character is odd.'] },
  };

  it('is warned of an odd VIN as it is typed, and may be added all the same', async () => {
    const calls = serve({ ...server, 'POST /api/vehicles': { body: { id: 12, warnings: [] } } });
    show(<VehicleForm />, '/vehicles/new', true);
    fireEvent.change(await screen.findByLabelText('VIN, 17 letters and digits, if known'), {
      target: { value: '1m8gdm9a1kp0 42788' },
    });
    await screen.findByText(/The ninth character is odd/);
    press('Add the vehicle');
    await waitFor(() => expect(sent(calls)).toHaveLength(1));
    expect(sent(calls)[0]!.body).toMatchObject({ vin: '1M8GDM9A1KP042788', version: 0 });
  });

  it('that lacks something is not added, and says what', async () => {
    serve({
      ...server,
      'POST /api/vehicles': problem('/registration', 'The registration is missing.'),
    });
    show(<VehicleForm />, '/vehicles/new', true);
    await screen.findByLabelText('Registration');
    press('Add the vehicle');
    await screen.findByText('The registration is missing.');
  });
});
