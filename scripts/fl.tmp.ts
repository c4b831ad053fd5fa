import { firstLoad } from "./first-load";
const html = await (await fetch("http://localhost:4012" + process.argv[2])).text();
const r = firstLoad(html); console.log(r.kB, r.files.length); for (const [n,k] of r.files) console.log(k.toFixed(1), n);
