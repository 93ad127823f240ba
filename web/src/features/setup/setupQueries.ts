import { keepPreviousData, queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';

export const workshopQuery = queryOptions({
  queryKey: ['workshop'],
  queryFn: () => data(api.GET('/api/setup/workshop')),
});

export const assumptionsQuery = queryOptions({
  queryKey: ['assumptions'],
  queryFn: () => data(api.GET('/api/setup/assumptions')),
});

export const personChangesQuery = queryOptions({
  queryKey: ['people', 'changes'],
  queryFn: () => data(api.GET('/api/setup/people/changes')),
});

export const peopleQuery = queryOptions({
  queryKey: ['people'],
  queryFn: () => data(api.GET('/api/setup/people')),
});

export const readyQuery = queryOptions({
  queryKey: ['ready'],
  queryFn: () => data(api.GET('/api/setup/ready')),
});

export const baysQuery = queryOptions({
  queryKey: ['bays'],
  queryFn: () => data(api.GET('/api/setup/bays')),
});

export const setupFleetsQuery = queryOptions({
  queryKey: ['setup-fleets'],
  queryFn: () => data(api.GET('/api/setup/fleets')),
});

/** Kept on the screen while another choice is reckoned. */
export const outlookQuery = (w: Schemas['WorkshopChange']) =>
  queryOptions({
    queryKey: ['outlook', w],
    queryFn: ({ signal }) => data(api.POST('/api/setup/workshop/outlook', { body: w, signal })),
    placeholderData: keepPreviousData,
    retry: false,
  });

export const breakdownsQuery = queryOptions({
  queryKey: ['breakdowns'],
  queryFn: () => data(api.GET('/api/setup/breakdowns')),
});

function useSetupChange<V, R>(send: (values: V) => Promise<R>, onDone?: (result: R) => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: async (result) => {
      onDone?.(result);
      await client.invalidateQueries();
    },
  });
}

export const useChangeWorkshop = (onDone: () => void) =>
  useSetupChange(
    (body: Schemas['WorkshopChange']) => data(api.PUT('/api/setup/workshop', { body })),
    onDone,
  );

export const usePreviewWorkshop = () =>
  useMutation({
    mutationFn: (body: Schemas['WorkshopChange']) =>
      data(api.POST('/api/setup/workshop/preview', { body })),
  });

export const useAssume = (onDone: () => void) =>
  useSetupChange(
    (body: Schemas['AssumptionsChange']) => data(api.PUT('/api/setup/assumptions', { body })),
    onDone,
  );

export const usePreviewAssumptions = () =>
  useMutation({
    mutationFn: (body: Schemas['AssumptionsChange']) =>
      data(api.POST('/api/setup/assumptions/preview', { body })),
  });

export const useAcceptWear = () =>
  useSetupChange((body: Schemas['AcceptedWear']) =>
    data(api.POST('/api/setup/breakdowns/accept', { body })),
  );

export const useWithdrawBreakdown = (onDone: () => void) =>
  useSetupChange(
    ({ id, why }: { id: number; why: string }) =>
      data(
        api.POST('/api/setup/breakdowns/{id}/withdraw', {
          params: { path: { id } },
          body: { why },
        }),
      ),
    onDone,
  );

export const useAddPerson = (onDone: () => void) =>
  useSetupChange(
    (body: Schemas['NewPerson']) => data(api.POST('/api/setup/people', { body })),
    onDone,
  );

/** Changes an account; a new password goes first, so that one that is refused leaves all as it was. */
export const useChangePerson = (secret?: { id: number; password: string }, onDone?: () => void) =>
  useSetupChange(async ({ id, ...body }: Schemas['PersonChange'] & { id: number }) => {
    if (secret?.password) {
      await data(
        api.PUT('/api/setup/people/{id}/password', {
          params: { path: { id } },
          body: { password: secret.password },
        }),
      );
    }
    return data(api.PUT('/api/setup/people/{id}', { params: { path: { id } }, body }));
  }, onDone);

export const useAddBay = (onDone: () => void) =>
  useSetupChange((body: Schemas['NewBay']) => data(api.POST('/api/setup/bays', { body })), onDone);

export const useChangeBay = (onDone: () => void) =>
  useSetupChange(
    ({ id, ...body }: Schemas['Bay']) =>
      data(api.PUT('/api/setup/bays/{id}', { params: { path: { id } }, body })),
    onDone,
  );

export const useAddFleet = (onDone: () => void) =>
  useSetupChange(
    (body: Schemas['NewFleet']) => data(api.POST('/api/setup/fleets', { body })),
    onDone,
  );

export const useChangeFleet = (onDone: () => void) =>
  useSetupChange(
    ({ id, ...body }: Schemas['Fleet']) =>
      data(api.PUT('/api/setup/fleets/{id}', { params: { path: { id } }, body })),
    onDone,
  );

export const useGiveUpFleet = () =>
  useSetupChange(({ id, version }: Schemas['Fleet']) =>
    data(api.DELETE('/api/setup/fleets/{id}', { params: { path: { id }, query: { version } } })),
  );

export const outsideQuery = queryOptions({
  queryKey: ['outside'],
  queryFn: () => data(api.GET('/api/setup/outside')),
});

export const useChangeOutside = () =>
  useSetupChange((body: Schemas['OutsideChange']) => data(api.PUT('/api/setup/outside', { body })));

export const houseQuery = queryOptions({
  queryKey: ['house'],
  queryFn: () => data(api.GET('/api/setup/house')),
});

export const useChangeHouse = (onDone: () => void) =>
  useSetupChange(
    (body: Schemas['HouseChange']) => data(api.PUT('/api/setup/house', { body })),
    onDone,
  );

export const hoursQuery = queryOptions({
  queryKey: ['hours'],
  queryFn: () => data(api.GET('/api/setup/hours')),
});

export const useChangeHours = (onDone: () => void) =>
  useSetupChange(
    (body: Schemas['OpeningChange']) => data(api.PUT('/api/setup/hours', { body })),
    onDone,
  );

export const closedDaysQuery = queryOptions({
  queryKey: ['closed-days'],
  queryFn: () => data(api.GET('/api/setup/closed-days')),
});

export const useAddClosedDays = (onDone: () => void) =>
  useSetupChange(
    (days: Schemas['ClosedIn'][]) => data(api.POST('/api/setup/closed-days', { body: { days } })),
    onDone,
  );

export const useReopen = () =>
  useSetupChange((id: number) =>
    data(api.DELETE('/api/setup/closed-days/{id}', { params: { path: { id } } })),
  );

/** What a calendar file says; changes nothing. */
export const useReadCalendar = () =>
  useMutation({
    mutationFn: (text: string) => data(api.POST('/api/setup/closed-days/read', { body: { text } })),
  });

export const usageClassesQuery = queryOptions({
  queryKey: ['usage-classes'],
  queryFn: () => data(api.GET('/api/setup/usage-classes')),
});

export const useAddUsageClass = (onDone: () => void) =>
  useSetupChange(
    (body: Schemas['NewClass']) => data(api.POST('/api/setup/usage-classes', { body })),
    onDone,
  );

export const useChangeUsageClass = (onDone: () => void) =>
  useSetupChange(
    ({ code, ...body }: Schemas['ClassChange'] & { code: string }) =>
      data(api.PUT('/api/setup/usage-classes/{code}', { params: { path: { code } }, body })),
    onDone,
  );

export const useGiveUpUsageClass = () =>
  useSetupChange(({ code, version }: Schemas['Listed']) =>
    data(
      api.DELETE('/api/setup/usage-classes/{code}', {
        params: { path: { code }, query: { version } },
      }),
    ),
  );

export const matchingQuery = queryOptions({
  queryKey: ['matching'],
  queryFn: () => data(api.GET('/api/setup/matching')),
});

export const useAddRule = (onDone: () => void) =>
  useSetupChange(
    (body: Schemas['RuleIn']) => data(api.POST('/api/setup/matching/rules', { body })),
    onDone,
  );

export const useChangeRule = (onDone: () => void) =>
  useSetupChange(
    ({ id, ...body }: Schemas['RuleIn'] & { id: number }) =>
      data(api.PUT('/api/setup/matching/rules/{id}', { params: { path: { id } }, body })),
    onDone,
  );

export const useRemoveRule = () =>
  useSetupChange(({ id, version }: Schemas['RuleView']) =>
    data(
      api.DELETE('/api/setup/matching/rules/{id}', {
        params: { path: { id }, query: { version } },
      }),
    ),
  );

export const useGiveFamilies = (onDone: (given: Schemas['Given']) => void) =>
  useSetupChange(
    (choices: Schemas['ChoiceIn'][]) =>
      data(api.POST('/api/setup/matching/families', { body: { choices } })),
    onDone,
  );

/** Ends one session of somebody. */
export const useEndDevice = () =>
  useSetupChange(({ id, key }: { id: number; key: string }) =>
    data(api.DELETE('/api/setup/people/{id}/devices/{key}', { params: { path: { id, key } } })),
  );

/** Lets somebody in without the second device, which is lost. */
export const useNoSecondFactor = () =>
  useSetupChange((id: number) =>
    data(api.DELETE('/api/setup/people/{id}/second-factor', { params: { path: { id } } })),
  );

/** Signs somebody out on every device. */
export const useSignOutEverywhere = () =>
  useSetupChange((id: number) =>
    data(api.POST('/api/setup/people/{id}/sign-out', { params: { path: { id } } })),
  );
