/** In the place of what lets drawn shapes be pressed: by it, all that React Native once did for touch would come along. */
export default (): void => undefined;
