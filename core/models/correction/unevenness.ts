/** Local unevenness of hand removal from place to place, as a share of it. Default of ours. */
export const LOCAL_UNEVENNESS = 0.15;
