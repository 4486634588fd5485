import type { FeelStage } from '../stage';
import { aheadStage } from './ahead';
import { baseStage } from './base';
import { dynamicsStage } from './dynamics';
import { humanizeStage } from './humanize';
import { quantizeStage } from './quantize';
import { staggerStage } from './stagger';

/** The stages of feel in the order in which every stroke goes through them. */
export const FEEL_STAGES: readonly FeelStage[] = [
  quantizeStage,
  baseStage,
  staggerStage,
  aheadStage,
  dynamicsStage,
  humanizeStage,
];
