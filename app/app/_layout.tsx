import { Barlow_400Regular } from '@expo-google-fonts/barlow/400Regular';
import { Barlow_500Medium } from '@expo-google-fonts/barlow/500Medium';
import { Barlow_600SemiBold } from '@expo-google-fonts/barlow/600SemiBold';
import { BarlowSemiCondensed_600SemiBold } from '@expo-google-fonts/barlow-semi-condensed/600SemiBold';
import { BarlowSemiCondensed_700Bold } from '@expo-google-fonts/barlow-semi-condensed/700Bold';
import { RobotoMono_400Regular } from '@expo-google-fonts/roboto-mono/400Regular';
import { createTheme, ThemeProvider } from '@rneui/themed/dist/config';
import { useFonts } from 'expo-font';
import { Slot } from 'expo-router';
import { useEffect, useState } from 'react';
import { Provider } from 'react-redux';
import '../text/index.ts';
import { installOnDevice } from '../deviceCache/index.ts';
import { prepareAll } from '../places.ts';
import { api, begin, store } from '../state/index.ts';

if (typeof location !== 'undefined') begin(store, location.pathname + location.search);
installOnDevice();

const theme = createTheme({ mode: 'light' });

/**
 * Waits until it is known whether anybody is signed in: a layout that shows nothing for a moment would lose the rest
 * of the address.
 */
function Known() {
  const { isLoading } = api.useMeQuery();
  const [known, setKnown] = useState(false);
  useEffect(() => {
    if (isLoading) return;
    setKnown(true);
    void prepareAll();
  }, [isLoading]);
  return known ? <Slot /> : null;
}

export default function Root() {
  const [ready, failed] = useFonts({
    Barlow_400Regular,
    Barlow_500Medium,
    Barlow_600SemiBold,
    BarlowSemiCondensed_600SemiBold,
    BarlowSemiCondensed_700Bold,
    RobotoMono_400Regular,
  });
  if (!ready && !failed) return null;
  return (
    <Provider store={store}>
      <ThemeProvider theme={theme}>
        <Known />
      </ThemeProvider>
    </Provider>
  );
}
