import { close, notify, noticesReducer, undone, type Notice } from './notices.ts';

const said = (...texts: (string | Partial<Notice>)[]) =>
  texts.reduce<Notice[]>((state, text) => {
    const notice = typeof text === 'string' ? { text } : text;
    return noticesReducer(state, notify({ kind: 'done', text: '', ...notice }));
  }, []);
const shown = (state: Notice[]) => state.filter((n) => n.shown).map((n) => n.text);

describe('notices', () => {
  it('show the newest three, and keep fifty to be read again', () => {
    const state = said(...Array.from({ length: 60 }, (_, n) => `n${n}`));
    expect(shown(state)).toEqual(['n57', 'n58', 'n59']);
    expect([state.length, state[0]!.text]).toEqual([50, 'n10']);
  });

  it('take the place of what was said of the same: that can be undone no more', () => {
    const undo = { name: 'restoreRest', id: 'o1' } as const;
    const state = said({ text: 'cancelled', undo }, 'other', { text: 'back', about: 'o1' });
    expect(shown(state)).toEqual(['other', 'back']);
    expect(state[0]).toMatchObject({ text: 'cancelled', about: 'o1' });
    expect(state[0]!.undo).toBeUndefined();
  });

  it('go from the edge of the screen and stay in the list; what was undone offers no undo again', () => {
    const state = said('read', { text: 'cancelled', undo: { name: 'restoreRest', id: 'o1' } });
    const [read, cancelled] = state.map((n) => n.id);
    const after = noticesReducer(noticesReducer(state, close(read!)), undone(cancelled!));
    expect(shown(after)).toEqual([]);
    expect(after.map((n) => [n.text, n.undo])).toEqual([
      ['read', undefined],
      ['cancelled', undefined],
    ]);
  });
});
