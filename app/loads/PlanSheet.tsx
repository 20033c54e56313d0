import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { LoadDetail, LoadSummary } from '@hand-relay/contract';
import { addDays, localDate } from '@hand-relay/core/calendar';
import { api, troubleOf, useMe, useNow, words } from '../state/index.ts';
import { mass, number } from '../text/index.ts';
import { Choice, Column, Failed, Field, Button, Loading, Sheet, Text } from '../ui/index.ts';

/** Plans a load, or changes what one is: its vehicle, its departure and day, its door. */
export function PlanSheet({
  load,
  onClose,
  onPlanned,
}: {
  load?: LoadSummary;
  onClose: () => void;
  onPlanned: (load: LoadDetail) => void;
}) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const { data: list } = api.useLoadsQuery({ state: 'planned' });
  const { data: places } = api.useDeskPlacesQuery();
  const [plan, planning] = api.usePlanLoadMutation();
  const [change, changing] = api.useChangeLoadMutation();
  const today = localDate(now, me.site.timeZone);
  const [vehicle, setVehicle] = useState(load?.vehicle ?? '');
  const [departure, setDeparture] = useState(load?.departure ?? '');
  const [door, setDoor] = useState(load?.door ?? '');
  const [day, setDay] = useState(load?.leavesAt ? localDate(Date.parse(load.leavesAt), me.site.timeZone) : '');
  const [note, setNote] = useState(load?.note ?? '');
  const [asked, setAsked] = useState(false);
  const { isLoading, error } = load ? changing : planning;
  const goodDay = day === '' || (/^\d{4}-\d{2}-\d{2}$/.test(day) && !Number.isNaN(Date.parse(day)));
  const title = load ? t('loads.change') : t('loads.plan');
  const go = async () => {
    setAsked(true);
    if (!vehicle || !goodDay) return;
    const body = {
      vehicle,
      departure: departure || null,
      day: departure && day ? day : null,
      door: door || null,
      note,
    };
    const done = await (load ? change({ id: load.id, ...body }) : plan(body));
    if (done.data) onPlanned(done.data);
  };
  if (!list || !places) return <Loading />;
  const named = (names: string[]) => [
    { value: '', title: t('loads.none') },
    ...names.map((value) => ({ value, title: value })),
  ];
  const chosen = list.vehicles.find((v) => v.name === vehicle);
  return (
    <Sheet
      title={title}
      onClose={onClose}
      keys={
        <>
          <Button title={t('release.cancel')} onPress={onClose} />
          <Button kind="act" title={title} busy={isLoading} onPress={() => void go()} />
        </>
      }
    >
      <Column gap={14}>
        {list.vehicles.length === 0 && <Failed text={t('loads.noVehicles')} />}
        <Column gap={4}>
          <Choice
            label={t('loads.vehicle')}
            value={vehicle}
            onChange={setVehicle}
            options={list.vehicles.map((v) => ({ value: v.name, title: v.name }))}
          />
          {chosen && (
            <Text kind="small" colour="quiet">
              {t('loads.takes', {
                places: number(chosen.floorPlaces),
                weight: mass(chosen.maxLoadG),
                size: [chosen.lengthMm, chosen.widthMm, chosen.heightMm]
                  .map((mm) => (mm / 1000).toFixed(2))
                  .join(' × '),
              })}
            </Text>
          )}
          {asked && !vehicle && <Failed text={t('loads.vehicleNeeded')} />}
        </Column>
        <Choice
          label={t('orders.departure')}
          value={departure}
          onChange={setDeparture}
          options={named(places.departures)}
        />
        {departure !== '' && (
          <Column gap={6}>
            <Choice
              label={t('loads.day')}
              value={day}
              onChange={setDay}
              options={[
                { value: '', title: t('loads.next') },
                { value: today, title: t('orders.today') },
                { value: addDays(today, 1), title: t('orders.tomorrow') },
              ]}
            />
            <View style={{ width: 180 }}>
              <Field
                bare
                label={t('loads.day')}
                placeholder="2027-01-31"
                value={day}
                onChange={setDay}
                error={goodDay ? undefined : t('loads.dayWrong')}
              />
            </View>
          </Column>
        )}
        <Choice label={t('tray.door')} value={door} onChange={setDoor} options={named(places.doors)} />
        <Field label={t('loads.note')} value={note} onChange={setNote} />
        {error && <Failed text={words(troubleOf(error))} />}
      </Column>
    </Sheet>
  );
}
