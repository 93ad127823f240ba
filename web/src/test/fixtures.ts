import type { Schemas } from '../api/client';

const today = { date: '2026-11-25', months: 54, km: 98_000, odometerKm: 138_000 };

/** 98,000 km and 54 months into 120,000 km and 72 months. */
export const dueWindow: Schemas['WindowView'] = {
  item: 'Timing belt',
  start: '2022-05-25',
  startKm: 40_000,
  known: true,
  severe: false,
  limit: { km: 120_000, months: 72 },
  other: { km: 70_000, months: 60 },
  spanMonths: 90,
  spanKm: 150_000,
  track: [{ date: '2022-05-25', months: 0, km: 0, odometerKm: 40_000 }, today],
  rejected: [],
  fan: [
    { date: '2026-11-25', months: 54, lowKm: 98_000, medianKm: 98_000, highKm: 98_000 },
    { date: '2029-11-25', months: 90, lowKm: 140_000, medianKm: 158_000, highKm: 176_000 },
  ],
  today,
  crossing: {
    wall: 'DISTANCE',
    from: '2027-10-01',
    median: '2027-12-31',
    to: '2028-04-01',
    corner: false,
  },
};

/** Somebody of the desk; with it the answers every screen asks for. */
export const manager = {
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
};

export const deskRow = (vehicleId: number, more: Partial<Schemas['DeskRow']> = {}) => ({
  vehicleId,
  registration: `SKR ${vehicleId}`,
  ownerName: 'Tamsin Orde',
  ownerPhone: '0555 1',
  makeModel: 'Windle Lark 1.5',
  drive: 'BELT' as const,
  interference: 'YES' as const,
  status: 'OVERDUE' as const,
  statusWords: 'Overdue',
  note: 'limit 9 days ago',
  whileHere: false,
  life: { binding: 'AGE' as const },
  nextStep: 'RING' as const,
  nextStepWords: 'ring',
  callBack: false,
  ...more,
});

/** A page of the Desk's list, as the server gives it. */
export function deskView(
  rows: ReturnType<typeof deskRow>[],
  listed: Partial<Record<Schemas['DeskRow']['status'], number>>,
  more: Partial<Schemas['DeskView']> = {},
): Schemas['DeskView'] {
  const statuses = ['STOP', 'OVERDUE', 'COMING', 'CLEAR'] as const;
  return {
    today: '2026-11-25',
    vehicles: 240,
    toDecide: (listed.STOP ?? 0) + (listed.OVERDUE ?? 0),
    total: Object.values(listed).reduce((a, b) => a + b, 0),
    offset: 0,
    aside: 0,
    callBacks: 0,
    whileHere: 0,
    rechecks: 0,
    groups: statuses.map((status) => ({
      status,
      words: status.charAt(0) + status.slice(1).toLowerCase(),
      count: listed[status] ?? 0,
    })),
    sections: statuses
      .filter((status) => listed[status])
      .map((status) => ({
        status,
        words: status.charAt(0) + status.slice(1).toLowerCase(),
        listed: listed[status] ?? 0,
      })),
    rows,
    nextActByVehicles: 0,
    unjudged: [],
    ...more,
  };
}
