declare module "sql.js/dist/sql-wasm-browser.js" {
  import initSqlJs from "sql.js";
  export default initSqlJs;
}
declare module "virtual:cold" {
  const address: string;
  export default address;
}
