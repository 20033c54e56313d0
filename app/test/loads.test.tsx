import { createTheme, ThemeProvider } from '@rneui/themed/dist/config';
import { render, screen } from '@testing-library/react-native';
import type { LoadFill } from '@hand-relay/contract';
import { LoadBars } from '../loads/LoadBars.tsx';
import { LoadFloor } from '../loads/LoadFloor.tsx';
import { words } from '../state/trouble.ts';
import { showUnits } from '../text/index.ts';
import { SurfaceContext } from '../ui/index.ts';

const shown = (element: React.ReactElement) =>
  render(
    <ThemeProvider theme={createTheme({})}>
      <SurfaceContext.Provider value="paper">{element}</SurfaceContext.Provider>
    </ThemeProvider>,
  );
const fill = (more: Partial<LoadFill> = {}): LoadFill => ({
  weightG: 575_000,
  volumeCm3: 4_600_000,
  places: 3,
  most: { weightG: 1_150_000, volumeCm3: 11_500_000, places: 5 },
  over: [],
  ...more,
});
const cells = () =>
  screen.root.findAll((node) => String(node.type) === 'RNSVGRect' && Number(node.props['width']) === 22);

describe('how full a load is', () => {
  afterEach(() => showUnits('metric'));

  it('is told by weight, volume and floor places, in the units of the site', () => {
    shown(<LoadBars fill={fill()} />);
    for (const text of ['575 kg of 1,150 kg · 50 %', '4.6 of 11.5 m³ · 40 %', '3 of 5 · 60 %'])
      expect(screen.getByText(text)).toBeTruthy();
    showUnits('imperial');
    shown(<LoadBars fill={fill()} />);
    expect(screen.getByText('1,268 lb of 2,535 lb · 50 %')).toBeTruthy();
  });

  it('says what is too much and by how much, beside the bars and where it was refused', () => {
    const over = [
      { what: 'weight' as const, by: 12_340 },
      { what: 'volume' as const, by: 1_500_000 },
      { what: 'places' as const, by: 2 },
      { what: 'size' as const, by: 400 },
    ];
    shown(<LoadBars fill={fill({ over })} />);
    const said = ['12.3 kg too heavy', '1.5 m³ too much', '2 floor places too many', 'A piece is 400 mm too long'];
    for (const text of said) expect(screen.getByText(text)).toBeTruthy();
    const facts = { load: 7, vehicle: 'Van', over };
    expect(words({ code: 'load-overfull', facts, fields: [], requestId: '', status: 409 })).toBe(
      `Load 7 (Van) would be overloaded: ${said.join(', ')}. Nothing was added.`,
    );
  });

  it('is drawn place by place, what is too much in a colour of its own behind the floor', () => {
    // Colours come as numbers of the drawing library: alike or not is what matters.
    const colours = () => cells().map((c) => JSON.stringify(c.props['fill']));
    const view = shown(<LoadFloor widthMm={1760} places={5} taken={3} />);
    expect(screen.getByLabelText('3 of 5 floor places taken')).toBeTruthy();
    const [taken, free] = [colours()[0], colours()[4]];
    expect(colours()).toEqual([taken, taken, taken, free, free]);
    expect(taken).not.toBe(free);
    view.rerender(
      <ThemeProvider theme={createTheme({})}>
        <SurfaceContext.Provider value="paper">
          <LoadFloor widthMm={1760} places={5} taken={7} />
        </SurfaceContext.Provider>
      </ThemeProvider>,
    );
    const beyond = colours()[6];
    expect(colours()).toEqual([...Array.from({ length: 5 }, () => taken), beyond, beyond]);
    expect([taken, free]).not.toContain(beyond);
  });
});
