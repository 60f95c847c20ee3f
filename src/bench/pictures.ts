/** Pictures as the sheet shows them: fetched once, and no larger than a screen needs. */
import { useQuery } from '@tanstack/react-query';
import { useObjectUrl } from '@/ui/object-url';

/** More pixels than this are not shown, whatever the picture has: the browser draws all of them at every move. */
const SHOWN = 1_600_000;

async function fetchShown(id: string): Promise<Blob> {
  const response = await fetch(`/api/assets/${id}`);
  if (!response.ok) throw new Error('The picture is not there.');
  const blob = new Blob([await response.arrayBuffer()], { type: 'image/png' });
  const whole = await createImageBitmap(blob);
  const factor = Math.sqrt(SHOWN / (whole.width * whole.height));
  if (factor >= 1) {
    whole.close();
    return blob;
  }
  const canvas = new OffscreenCanvas(Math.ceil(whole.width * factor), Math.ceil(whole.height * factor));
  const context = canvas.getContext('2d');
  if (!context) return blob;
  context.imageSmoothingQuality = 'high';
  context.drawImage(whole, 0, 0, canvas.width, canvas.height);
  whole.close();
  return canvas.convertToBlob({ type: 'image/png' });
}

/** The address a kept picture is shown from; null while it is fetched. `isAway`: it can't be had. */
export function usePictureUrl(id: string): { readonly url: string | null; readonly isAway: boolean } {
  const { data, isError } = useQuery({
    queryKey: ['picture', id],
    queryFn: () => fetchShown(id),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return { url: useObjectUrl(data ?? null), isAway: isError };
}
