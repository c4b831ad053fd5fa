/** Where a page that the device has drawn by itself lies, until it is loaded. */
export const PREPARED = "yakamoz-prepared";
