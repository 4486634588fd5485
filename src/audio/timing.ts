/** The rate of the audio clock, everywhere; the browser fits it to the device. */
export const SAMPLE_RATE = 48000;
/** From play to the first sound. */
export const START_SECONDS = 0.08;
