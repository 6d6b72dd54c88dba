// Draws a space's history, its expected band and its capacity with a crosshair.
(function () {
  'use strict';

  function draw(box) {
    box.dataset.drawn = '';
    const style = getComputedStyle(document.documentElement);
    const token = (name) => style.getPropertyValue('--' + name).trim();
    const base = box.dataset.units === 'DECIMAL' ? 1000 : 1024;
    const unit = box.dataset.units === 'DECIMAL' ? 'TB' : 'TiB';
    const scale = (bytes) => (bytes === null ? null : bytes / base ** 4);
    const font = '13px ' + token('font-sans');
    const axis = { font, labelFont: 'bold ' + font, stroke: token('ink-2'), grid: { stroke: token('line'), width: 1 }, ticks: { stroke: token('line') } };
    const day = (seconds) => new Date(seconds * 1000).toISOString().slice(0, 10);

    // What is drawn before its font has come stays in another one.
    Promise.all([fetch(box.dataset.chart).then((answer) => answer.json()), document.fonts.load(font)])
      .then(([chart]) => {
        // The band is painted with its upper line, so the middle comes after both.
        const [used, low, middle, high] = chart.lines.map((line) => line.map(scale));
        const capacity = chart.room.map(scale);
        const others = chart.others.map((other) => other.values.map(scale));
        const dashed = { width: 1, stroke: token('moss'), dash: [4, 3], points: { show: false } };
        const figure = (plot, value) => (value === null || value === undefined ? '–' : value.toFixed(2));
        const options = {
          width: box.clientWidth,
          height: 320,
          tzDate: (seconds) => new Date((seconds + new Date().getTimezoneOffset() * 60) * 1000),
          scales: { y: { range: (plot, low, high) => [0, Math.max(high, ...capacity) * 1.08] } },
          axes: [axis, { ...axis, label: unit, size: 56 }],
          series: [
            { label: 'day', value: (plot, seconds) => (seconds ? day(seconds) : '–') },
            { label: 'used', stroke: token('moss'), width: 1.5, points: { show: false }, value: figure },
            { ...dashed, label: 'low (10 %)', value: figure },
            { ...dashed, label: 'high (90 %)', value: figure },
            { label: 'middle', stroke: token('ink'), width: 1.5, dash: [6, 4], points: { show: false }, value: figure },
            { label: 'capacity', stroke: token('brick'), width: 1.5, points: { show: false }, value: figure },
            ...chart.others.map((other) => ({
              label: other.label, stroke: token(other.style), width: 1.5, dash: [2, 3], points: { show: false }, value: figure,
            })),
          ],
          bands: [{ series: [3, 2], fill: token('moss-pale') }],
        };
        const plot = new uPlot(options, [chart.seconds, used, low, high, middle, capacity, ...others], box);
        new ResizeObserver(() => plot.setSize({ width: box.clientWidth, height: 320 })).observe(box);
      });
  }

  const drawAll = (root) => root.querySelectorAll('[data-chart]:not([data-drawn])').forEach(draw);
  drawAll(document);
  document.addEventListener('htmx:load', (event) => drawAll(event.detail.elt.parentNode || document));
})();
