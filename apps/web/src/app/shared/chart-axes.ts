/** An axis of a chart without lines across it, in one colour. */
export const axisIn = (color: string) => ({
  axisLine: { lineStyle: { color } },
  axisLabel: { color },
  nameTextStyle: { color },
  splitLine: { show: false },
});
