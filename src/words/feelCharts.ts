/** What the charts of feel say: they are fetched by themselves, and would bring the other texts along. */
export const words = {
  aheadMs: 'ahead, ms',
  behindMs: 'behind, ms',
  distanceOfEachHitFrom: 'Distance of each hit from the grid over one bar, behind below, ahead above',
  meanVelocityOnEachSixteenth: 'Mean velocity on each sixteenth of the bar',
  accentsOverTheBar: 'Accents over the bar',
  howOftenEachVelocityIs: 'How often each velocity is played',
  histogramOfVelocities: 'Histogram of velocities',
};
