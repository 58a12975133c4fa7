let context: AudioContext | undefined;

/** Three short tones, made here: an alarm that needs no file and carries over an extractor fan. */
export function alarm(): void {
  if (typeof AudioContext === 'undefined') return;
  context ??= new AudioContext();
  if (context.state === 'suspended') void context.resume();
  const start = context.currentTime + 0.02;
  for (let n = 0; n < 3; n++) {
    const tone = context.createOscillator();
    const level = context.createGain();
    tone.frequency.value = 880;
    tone.type = 'triangle';
    level.gain.setValueAtTime(0, start + n * 0.3);
    level.gain.linearRampToValueAtTime(0.35, start + n * 0.3 + 0.02);
    level.gain.linearRampToValueAtTime(0, start + n * 0.3 + 0.2);
    tone.connect(level).connect(context.destination);
    tone.start(start + n * 0.3);
    tone.stop(start + n * 0.3 + 0.22);
  }
}
