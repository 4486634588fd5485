/** The charts of the feel, fetched together: what draws them is large. */
export { TimingChart } from './TimingChart';
export { VelocityCharts } from './VelocityCharts';
export { DriftChart } from './DriftChart';
