import { Injectable } from '@angular/core';

/** Two short tones and a shake, so that a phone in a pocket is noticed. @source house figures */
const TONE_HZ = 880;
const TONE_S = 0.25;
const SHAKE_MS = [250, 120, 250];

/** Says that a wait is over, to ear and hand; where the device has neither, the screen says it alone. */
@Injectable({ providedIn: 'root' })
export class Bell {
  private audio: AudioContext | null = null;

  ring(): void {
    navigator.vibrate?.(SHAKE_MS);
    if (typeof AudioContext === 'undefined') return;
    this.audio ??= new AudioContext();
    const { audio } = this;
    for (const k of [0, 1]) {
      const [tone, loudness] = [audio.createOscillator(), audio.createGain()];
      const at = audio.currentTime + k * 2 * TONE_S;
      tone.frequency.value = TONE_HZ;
      loudness.gain.setValueAtTime(0.2, at);
      loudness.gain.exponentialRampToValueAtTime(0.001, at + TONE_S);
      tone.connect(loudness).connect(audio.destination);
      tone.start(at);
      tone.stop(at + TONE_S);
    }
  }
}
