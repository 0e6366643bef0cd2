import { drawingOf, type PlotOption } from './use-chart';

const SIZE = { width: 1000, height: 640 };

/** Saves a plot as it stands, for paper: lines as SVG, or dots as PNG. */
export async function savePlot(option: PlotOption, name: string, kind: 'svg' | 'png'): Promise<void> {
  const svg = await drawingOf({ ...option, backgroundColor: '#ffffff' }, SIZE.width, SIZE.height);
  if (kind === 'svg') saveAs(`${name}.svg`, new Blob([svg], { type: 'image/svg+xml' }));
  else saveAs(`${name}.png`, await rasterOf(svg));
}

/** A drawing as a picture of dots, twice as fine as the screen. */
async function rasterOf(svg: string): Promise<Blob> {
  const url = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
  const image = new Image();
  await new Promise((loaded, failed) => {
    image.onload = loaded;
    image.onerror = failed;
    image.src = url;
  });
  const canvas = document.createElement('canvas');
  canvas.width = 2 * SIZE.width;
  canvas.height = 2 * SIZE.height;
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
  URL.revokeObjectURL(url);
  return new Promise((done) => canvas.toBlob((blob) => done(blob!), 'image/png'));
}

/** Hands a file to the browser to be kept. */
function saveAs(name: string, content: Blob): void {
  const url = URL.createObjectURL(content);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
