/** In the place of the router's own tab bars of a phone's system, which nothing here shows. */
export const isNativeTabTrigger = (): boolean => false;
export const convertTabPropsToOptions = (): object => ({});
