import { Vibration } from 'react-native';

export type Sound = 'accepted' | 'refused' | 'finished';

/** Tones in hertz and seconds: one short high, two low, three rising. */
const tones: Record<Sound, [hertz: number, at: number, length: number][]> = {
  accepted: [[1480, 0, 0.07]],
  refused: [
    [220, 0, 0.16],
    [180, 0.2, 0.22],
  ],
  finished: [
    [880, 0, 0.09],
    [1175, 0.1, 0.09],
    [1568, 0.2, 0.16],
  ],
};
const shakes: Record<Sound, number[]> = {
  accepted: [0, 30],
  refused: [0, 120, 60, 160],
  finished: [0, 30, 40, 30, 40, 60],
};

let context: AudioContext | undefined;

/** Plays a verdict and shakes the device where it can. Silent where the browser has no sound or it is switched off. */
export function play(sound: Sound, enabled = true): void {
  if (!enabled) return;
  Vibration.vibrate(shakes[sound]);
  if (typeof AudioContext === 'undefined') return;
  context ??= new AudioContext();
  if (context.state === 'suspended') void context.resume();
  const begin = context.currentTime;
  for (const [hertz, at, length] of tones[sound]) {
    const wave = context.createOscillator();
    const volume = context.createGain();
    wave.type = sound === 'refused' ? 'square' : 'sine';
    wave.frequency.value = hertz;
    volume.gain.setValueAtTime(0.18, begin + at);
    volume.gain.linearRampToValueAtTime(0, begin + at + length);
    wave.connect(volume).connect(context.destination);
    wave.start(begin + at);
    wave.stop(begin + at + length);
  }
}
