import { act, render, screen } from '@testing-library/react-native';
import { Text } from 'react-native';
import { place } from '../shell/place.tsx';

it('a part of the app is read once, when it is entered; from then on its views show at once', async () => {
  let loads = 0;
  const floor = place(async () => {
    loads += 1;
    await Promise.resolve();
    return { Runs: () => <Text>runs</Text>, Back: ({ cart }: { cart: string }) => <Text>{`back from ${cart}`}</Text> };
  });
  const [Runs, Back] = [floor.view('Runs'), floor.view('Back')];
  render(<Runs />);
  expect(screen.queryByText('runs')).toBeNull();
  await act(async () => {});
  expect(screen.getByText('runs')).toBeTruthy();
  render(<Back cart="CART-01" />);
  // No turn of the loop lies between: a scan that comes now has its screen.
  expect(screen.getByText('back from CART-01')).toBeTruthy();
  expect(loads).toBe(1);
});
