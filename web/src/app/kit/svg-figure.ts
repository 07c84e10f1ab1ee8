/** All paths of an SVG file as one figure, or the sentence that says what is missing. */
export async function figureOfFile(file: File): Promise<{ readonly path: string } | { readonly message: string }> {
  const read = new DOMParser().parseFromString(await file.text(), 'image/svg+xml');
  const paths = [...read.querySelectorAll('path[d]')].map((p) => p.getAttribute('d')!.trim());
  return paths.length ? { path: paths.join(' ') } : { message: 'There is no path in this file. Turn its shapes into paths first.' };
}
