/** Paths of a machine that has no files: joined and cut, never opened. */
export const join = (...parts: string[]): string => parts.join("/").replace(/\/+/g, "/");
export const basename = (path: string): string => path.slice(path.lastIndexOf("/") + 1);
export const dirname = (path: string): string => path.slice(0, Math.max(0, path.lastIndexOf("/")));
export const resolve = join;
export const isAbsolute = (path: string): boolean => path.startsWith("/");
export const sep = "/";
export const relative = (_from: string, to: string): string => to;
