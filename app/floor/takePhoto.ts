/** Pixels of a photo's longer side: enough to see a damage, small enough for a weak signal. */
const LONGEST = 1280;
const QUALITY = 0.7;

/**
 * Asks the device's camera, or a file where there is none, for a photo; as base64 of a JPEG, null where none was taken.
 *
 * @throws where what was chosen is no picture that this browser can read
 */
export async function takePhoto(): Promise<string | null> {
  const file = await new Promise<File | null>((resolve) => {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = 'image/*';
    input.setAttribute('capture', 'environment');
    input.onchange = () => resolve(input.files?.[0] ?? null);
    input.oncancel = () => resolve(null);
    input.click();
  });
  if (!file) return null;
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return canvas.toDataURL('image/jpeg', QUALITY).split(',')[1] ?? null;
}
