/** The program that draws drum parts, an independent one; large, and so fetched for the first part that is looked at. */
export const fetchReader = async () => (await import('opensheetmusicdisplay')).OpenSheetMusicDisplay;
