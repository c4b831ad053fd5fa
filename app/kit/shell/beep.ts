/** Two short tones. Does nothing where the browser has no sound or does not allow it yet. */
export function beep(): void {
  if (typeof AudioContext === "undefined") return;
  const audio = new AudioContext();
  for (const [start, frequency_Hz] of [
    [0, 660],
    [0.22, 880],
  ] as const) {
    const tone = audio.createOscillator();
    const volume = audio.createGain();
    tone.frequency.value = frequency_Hz;
    volume.gain.value = 0.12;
    tone.connect(volume).connect(audio.destination);
    tone.start(audio.currentTime + start);
    tone.stop(audio.currentTime + start + 0.16);
  }
  setTimeout(() => void audio.close(), 800);
}

/** One short click, as a metronome gives. */
export function tick(): void {
  if (typeof AudioContext === "undefined") return;
  const audio = new AudioContext();
  const tone = audio.createOscillator();
  const volume = audio.createGain();
  tone.frequency.value = 1200;
  volume.gain.value = 0.1;
  tone.connect(volume).connect(audio.destination);
  tone.start();
  tone.stop(audio.currentTime + 0.03);
  setTimeout(() => void audio.close(), 200);
}
