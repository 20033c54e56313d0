import { placeNeeds, places, type Me, type Right, type WorkPlace } from '@hand-relay/contract';
import { createContext, useContext, useEffect, useState } from 'react';
import { serverNow } from './serverTime.ts';

export const MeContext = createContext<Me | null>(null);

/** The person who is signed in. Only used below the sign-in gate. */
export function useMe(): Me {
  const me = useContext(MeContext);
  if (!me) throw new Error('useMe is called outside the sign-in gate.');
  return me;
}

export function useMay(right: Right): boolean {
  return useMe().person.rights.includes(right);
}

/** Places that a person may use, in the order of the work. */
export function placesOf(me: Me): WorkPlace[] {
  return places.filter((p) => me.person.rights.includes(placeNeeds[p]));
}

/** Whether a person may confirm goods as picked without scans: all to the shipment, or to the bench where goods are packed. */
export function useMayConfirmPicked(): boolean {
  const { settings } = useMe();
  const [release, arrange, ship] = [useMay('orders.release'), useMay('runs.arrange'), useMay('shipments.confirm')];
  return release && (settings.stages === 'pick-pack-ship' ? arrange : ship);
}

/** Where a place begins for a person: who runs waves begins the Desk at the track, everybody else at the orders. */
export function startOf(me: Me, place: WorkPlace): `/${string}` {
  return place === 'desk' && me.person.rights.includes('waves.run') ? '/waves' : `/${place}`;
}

/** The present time by the server's clock, moving on every half minute: enough for words as "in 25 min". */
export function useNow(): number {
  const [now, setNow] = useState(serverNow);
  useEffect(() => {
    const timer = setInterval(() => setNow(serverNow()), 30_000);
    return () => clearInterval(timer);
  }, []);
  return now;
}
