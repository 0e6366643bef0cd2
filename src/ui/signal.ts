/** Says that a reading was taken, for eyes that are on the gauge: a short tone and a full-width flash. */
export function confirmCapture(sound: boolean): void {
  if (sound) tone(880, 0.09);
  flash();
}

/** Says that a wait is over. */
export function callOut(sound: boolean): void {
  if (!sound) return;
  tone(660, 0.18);
  setTimeout(() => tone(990, 0.25), 220);
}

/** Says that something was refused. */
export function refuseTone(sound: boolean): void {
  if (sound) tone(220, 0.2);
}

let audio: AudioContext | null = null;

function tone(frequency_Hz: number, length_s: number): void {
  try {
    audio ??= new AudioContext();
    const oscillator = audio.createOscillator();
    const gain = audio.createGain();
    oscillator.frequency.value = frequency_Hz;
    gain.gain.setValueAtTime(0.12, audio.currentTime);
    gain.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + length_s);
    oscillator.connect(gain).connect(audio.destination);
    oscillator.start();
    oscillator.stop(audio.currentTime + length_s);
  } catch {
    // A machine without sound still flashes.
  }
}

function flash(): void {
  const bar = document.createElement('div');
  bar.style.cssText =
    'position:fixed;inset:0 0 auto 0;height:14px;background:var(--hp-flash);z-index:2000;pointer-events:none';
  document.body.append(bar);
  setTimeout(() => bar.remove(), 260);
}
