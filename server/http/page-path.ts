/** The path of a page, also of a request for its data alone: `/jobs.data` is of `/jobs`, `/_root.data` and `/_.data` of `/`. */
export const pagePath = (path: string): string =>
  path
    .replace(/\/_\.data$/, "/")
    .replace(/\.data$/, "")
    .replace(/^\/_root$/, "/");
