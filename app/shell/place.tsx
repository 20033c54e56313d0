import { lazy, Suspense, type ComponentType } from 'react';
import { Loading } from '../ui/index.ts';

type PropsOf<V> = V extends () => unknown ? object : V extends (props: infer P extends object) => unknown ? P : never;

/**
 * A part of the app that is read from the server, or from what the device keeps of the app, when one of its views is
 * shown first: Floor does not load Desk. Once it is there its views show at once.
 *
 * @param load the folder's index, by a dynamic import
 */
export function place<M extends object>(load: () => Promise<M>) {
  let there: M | undefined;
  const ready = async () => (there ??= await load());
  return {
    /** Reads it before it is entered; where that fails it is read when it is. */
    prepare: () =>
      ready().then(
        () => undefined,
        () => undefined,
      ),
    /** The view of that name. */
    view<N extends keyof M>(name: N): ComponentType<PropsOf<M[N]>> {
      type View = ComponentType<PropsOf<M[N]>>;
      const viewOf = (module: M) => ({ default: module[name] as View });
      const View = lazy<View>(() => {
        if (!there) return ready().then(viewOf);
        // Answered within the call, so that nothing is shown in between and no scan falls into a gap.
        const found = viewOf(there);
        return { then: (answer: (found: { default: View }) => void) => answer(found) } as unknown as Promise<
          typeof found
        >;
      });
      return function Shown(props) {
        return (
          <Suspense fallback={<Loading />}>
            <View {...props} />
          </Suspense>
        );
      };
    },
  };
}
