/** Says that this screen looks at the invented shop. */
export const LOOK_COOKIE = "yakamoz-look";
const SET = new RegExp(`(?:^|;\\s*)${LOOK_COOKIE}=[^;\\s]`);
/** Whether a request's cookies say so. */
export const asksForDemo = (cookies: string | undefined): boolean => SET.test(cookies ?? "");
