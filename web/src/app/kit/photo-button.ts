import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';

/** Longest side of what is sent, px; the bench makes no more of it. @source house rule, as on the bench */
const LONGEST_PX = 1600;

/** Draws a photo anew, smaller: what the camera wrote into it (place, time, maker) stays behind. @throws Error when it is no picture */
async function smallPhoto(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file, { imageOrientation: 'from-image' });
  const k = Math.min(1, LONGEST_PX / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [Math.round(picture.width * k), Math.round(picture.height * k)];
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return new Promise((resolve, reject) => canvas.toBlob((b) => (b ? resolve(b) : reject(new Error('This picture could not be drawn.'))), 'image/jpeg', 0.85));
}

/** Takes a photo with the camera of the device, or a picture file. */
@Component({
  selector: 'yp-photo-button',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="btn min-h-14 w-full cursor-pointer text-lg focus-within:outline-3"
      >{{ label() }}<input type="file" accept="image/*" capture="environment" class="sr-only" (change)="take($event)"
    /></label>
    @if (fault()) {
      <p role="alert" class="mt-1 border-l-4 border-ink bg-tint p-2 text-sm">{{ fault() }}</p>
    }
  `,
  host: { class: 'block' },
})
export class PhotoButton {
  readonly label = input('Photo');
  readonly taken = output<Blob>();
  protected readonly fault = signal('');

  protected async take(event: Event): Promise<void> {
    const box = event.target as HTMLInputElement;
    const file = box.files?.[0];
    box.value = '';
    if (!file) return;
    try {
      this.taken.emit(await smallPhoto(file));
      this.fault.set('');
    } catch {
      this.fault.set('This does not read as a picture. Take it again, as JPEG or PNG.');
    }
  }
}
