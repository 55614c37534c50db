import { saveableCsv } from '@pebble/core';
import { type EChartsCoreOption, init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { pngFromSvg } from './png';
import { saveFile } from './save-file';

use([SVGRenderer]);

const SIZE = { width: 900, height: 560 };
const DOTS_PER_INCH = 300;
/** Pixels of a PNG for each of the picture. */
const FINER = 3;

/** Rows of a chart's data; the first names the columns. */
export type ChartRows = readonly (readonly (string | number)[])[];
export type ChartFormat = 'SVG' | 'PNG' | 'CSV';

/** Saves a chart as a vector picture, as pixels on the colour of the page, or as the rows that it shows. */
export async function saveChart(
  format: ChartFormat,
  name: string,
  options: EChartsCoreOption,
  rows: ChartRows,
): Promise<void> {
  const file = `${name}.${format.toLowerCase()}`;
  switch (format) {
    case 'CSV':
      return saveFile(new Blob([saveableCsv(rows)], { type: 'text/csv' }), file);
    case 'SVG':
      return saveFile(new Blob([svgOf(options, 1)], { type: 'image/svg+xml' }), file);
    case 'PNG': {
      const size = { width: SIZE.width * FINER, height: SIZE.height * FINER };
      saveFile(await pngFromSvg(svgOf(options, FINER), size, DOTS_PER_INCH), file);
    }
  }
}

/** A chart as SVG; larger by a factor, with everything in it. */
function svgOf(options: EChartsCoreOption, finer: number): string {
  const chart = init(null, null, { renderer: 'svg', ssr: true, ...SIZE });
  chart.setOption({ ...options, animation: false });
  const svg = chart.renderToSVGString();
  chart.dispose();
  return svg.replace(
    /<svg width="\d+" height="\d+"/,
    `<svg width="${SIZE.width * finer}" height="${SIZE.height * finer}"`,
  );
}
