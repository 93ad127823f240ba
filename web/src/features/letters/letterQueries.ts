import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';

export type Batch = Schemas['RemindersView'];
export type Letter = Schemas['ReminderLetter'];
export type OutboxView = Schemas['OutboxView'];
export type Message = Schemas['MessageView'];
export type Channel = Message['channel'];
export type SetupView = Schemas['LetterSetupView'];

export const remindersQuery = queryOptions({
  queryKey: ['letters', 'reminders'],
  queryFn: () => data(api.GET('/api/letters/reminders')),
});

export const previewQuery = (ownerId: number) =>
  queryOptions({
    queryKey: ['letters', 'reminders', ownerId],
    queryFn: () =>
      data(api.GET('/api/letters/reminders/{ownerId}', { params: { path: { ownerId } } })),
  });

/** Looked at again while something is going. */
export const outboxQuery = queryOptions({
  queryKey: ['letters', 'outbox'],
  queryFn: () => data(api.GET('/api/outbox')),
  refetchInterval: (query) =>
    query.state.data?.open.some((m) => m.channel !== 'LETTER') ? 2_000 : 30_000,
});

export const outboxCountsQuery = queryOptions({
  queryKey: ['letters', 'counts'],
  queryFn: () => data(api.GET('/api/outbox/counts')),
  refetchInterval: 60_000,
});

export function useSendReminders() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (letters: Schemas['ChosenIn'][]) =>
      data(api.POST('/api/letters/reminders', { body: { letters } })),
    onSuccess: (sent) => {
      client.setQueryData(remindersQuery.queryKey, sent.left);
      for (const { queryKey } of [outboxQuery, outboxCountsQuery])
        void client.invalidateQueries({ queryKey });
    },
    // somebody else may have sent them: the list is read anew beside what is said
    onError: () => void client.invalidateQueries({ queryKey: remindersQuery.queryKey }),
  });
}

export type Deed = 'take-back' | 'gone' | 'again';

export function useOutboxDeed() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, deed }: { id: number; deed: Deed }) => {
      const params = { params: { path: { id } } };
      return deed === 'take-back'
        ? data(api.POST('/api/outbox/{id}/take-back', params))
        : deed === 'gone'
          ? data(api.POST('/api/outbox/{id}/gone', params))
          : data(api.POST('/api/outbox/{id}/again', params));
    },
    onSettled: () => client.invalidateQueries({ queryKey: ['letters'] }),
  });
}

/** One file for the printer; the letters in it are noted as printed. */
export function usePrintLetters() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (letters: number[]) =>
      data(api.POST('/api/outbox/print', { body: { letters }, parseAs: 'blob' })) as Promise<Blob>,
    onSuccess: (pdf) => {
      // a link, because a window opened after an answer is taken for an advertisement
      const link = document.createElement('a');
      link.href = URL.createObjectURL(pdf);
      link.download = 'letters.pdf';
      link.click();
      setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
      return client.invalidateQueries({ queryKey: ['letters'] });
    },
  });
}

export const letterSetupQuery = queryOptions({
  queryKey: ['letters', 'setup'],
  queryFn: () => data(api.GET('/api/setup/letters')),
});

function useLetterSetup<V>(send: (values: V) => Promise<SetupView>, onKept: () => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: (view) => {
      client.setQueryData(letterSetupQuery.queryKey, view);
      void client.invalidateQueries({ queryKey: remindersQuery.queryKey });
      onKept();
    },
  });
}

export const useChangeRule = (onKept: () => void) =>
  useLetterSetup(
    (body: Schemas['ReminderRuleIn']) => data(api.PUT('/api/setup/letters/rule', { body })),
    onKept,
  );

export const useChangeWords = (text: string, onKept: () => void) =>
  useLetterSetup(
    (body: Schemas['LetterWordsIn']) =>
      data(api.PUT('/api/setup/letters/texts/{text}', { params: { path: { text } }, body })),
    onKept,
  );

export const useRemoveWords = (text: string, onKept: () => void) =>
  useLetterSetup(
    (query: { language: string; version: number }) =>
      data(api.DELETE('/api/setup/letters/texts/{text}', { params: { path: { text }, query } })),
    onKept,
  );

export const mailServerQuery = queryOptions({
  queryKey: ['setup', 'mail-server'],
  queryFn: () => data(api.GET('/api/setup/mail-server')),
});

export function useChangeMailServer(onKept: () => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas['MailServerIn']) =>
      data(api.PUT('/api/setup/mail-server', { body })),
    onSuccess: (view) => {
      client.setQueryData(mailServerQuery.queryKey, view);
      void client.invalidateQueries({ queryKey: ['letters'] });
      onKept();
    },
  });
}

export const useTryMailServer = () =>
  useMutation({
    mutationFn: (to: string) => data(api.POST('/api/setup/mail-server/test', { body: { to } })),
  });
