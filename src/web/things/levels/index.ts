export { LevelLegend } from './level-legend.tsx';
