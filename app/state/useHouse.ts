import { useMemo } from 'react';
import type { Ranked } from '@hand-relay/contract';
import type { ConditionField } from '@hand-relay/core/deciding/conditions';
import { api } from './api.ts';

const none: Ranked = [];
const inUse = (list: Ranked) => list.filter((one) => !one.retired);
const namesOf = (list: Ranked) => {
  const names = new Map(list.map((one) => [one.code, one.name]));
  return (code: string) => names.get(code) ?? code;
};

/** Channels and customer classes of the house, by rank. */
export function useHouse() {
  const { data, isError } = api.useDeskPlacesQuery();
  return useMemo(() => {
    const [channels, classes] = [data?.channels ?? none, data?.classes ?? none];
    return {
      /** Whether they are known, or not to be had. */
      isSettled: data !== undefined || isError,
      /** Those in use. */
      channels: inUse(channels),
      classes: inUse(classes),
      /** Names, also of those that are retired: an order may still have one. */
      channelName: namesOf(channels),
      className: namesOf(classes),
      choiceName: (field: string, choice: string) =>
        field === 'channel' ? namesOf(channels)(choice) : field === 'class' ? namesOf(classes)(choice) : undefined,
      /** Fields with the choices that the house says. */
      withChoices: <F extends ConditionField>(fields: readonly F[]): ConditionField[] =>
        fields.map((field) =>
          field.name === 'channel' || field.name === 'class'
            ? { ...field, of: (field.name === 'channel' ? channels : classes).map((one) => one.code) }
            : field,
        ),
    };
  }, [data, isError]);
}
