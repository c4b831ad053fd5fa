/** Says that this screen looks at the invented shop. */
export const LOOK_COOKIE = "yakamoz-look";
/** Whether a request's cookies say so. */
export const asksForDemo = (cookies: string | undefined): boolean => /(?:^|;\s*)yakamoz-look=[^;\s]/.test(cookies ?? "");
