/** What was drawn: jsdom has no canvas. */
export const drawn: { data: { datasets: { data: unknown[] }[] } }[] = [];

class Chart {
  static register(): void {}
  constructor(_: unknown, config: (typeof drawn)[number]) {
    drawn.push(config);
  }
  destroy(): void {}
}

/** Stands in for chart.js in tests. */
export const localChart = {
  Chart,
  LineController: {},
  LineElement: {},
  LinearScale: {},
  LogarithmicScale: {},
  PointElement: {},
};
