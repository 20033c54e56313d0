import { useTranslation } from 'react-i18next';
import type { CrewRun } from '@hand-relay/contract';
import { api, notify, useAppDispatch } from '../state/index.ts';
import { bayOf, type Bay } from './bays.ts';

/** Gives a run that nobody has begun to a person or into a queue; a notice takes it back. */
export function useGiveRun() {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [assign, { error }] = api.useAssignRunsMutation();
  const to = (bay: Bay) => ({ person: bay.person, ...(bay.person === null ? { team: bay.team } : {}) });
  return {
    assign,
    error,
    to,
    give: async (run: Pick<CrewRun, 'id' | 'number' | 'pickerId' | 'assignedId' | 'team'>, bay: Bay) => {
      if (bayOf(run) === bay.key) return;
      const before = { person: run.assignedId, team: run.team };
      const done = await assign({ runs: [run.id], ...to(bay) });
      if (!done.data) return;
      send(
        notify({
          kind: 'done',
          text: t('board.given', { run: run.number, to: bay.title }),
          undo: { name: 'assignRuns', body: { runs: [run.id], ...before } },
        }),
      );
    },
  };
}
